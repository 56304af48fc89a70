import { session } from "../../page-session.ts";
import { act, cleanup, render } from "@testing-library/react";
import { RouterProvider, createMemoryRouter } from "react-router";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ALONG, DOWN, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";
import { addressWriter } from "./address-writer.ts";
import { useAddress } from "./use-address.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG, down: DOWN });
});
afterEach(() => {
  vi.useRealTimers();
  cleanup();
  opened.close();
});

/** Lets what is shown rest for longer than the address waits before it follows. */
const rest = (): Promise<void> => act(async () => void (await vi.advanceTimersByTimeAsync(400)));

function Bench() {
  useAddress();
  return null;
}

/** The Bench at an address, beside an area that takes its time to load. */
async function at(address: string) {
  let arrives: () => void = () => undefined;
  const loaded = new Promise<void>((resolve) => (arrives = resolve));
  const router = createMemoryRouter(
    [
      { path: "/w/hall/bench", Component: Bench },
      { path: "/elsewhere", Component: () => null },
      { path: "/w/hall/proofs", lazy: async () => (await loaded, { Component: () => null }) },
    ],
    { initialEntries: [address] },
  );
  session.asked.writeAddress.answer(addressWriter(router));
  render(<RouterProvider router={router} />);
  await until(() => session.benchStore.getState().run !== null);
  vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
  return { router, arrives, address: () => `${router.state.location.pathname}${router.state.location.search}` };
}

it("names the room, log and frame that are shown, once they rest", async () => {
  const { address } = await at("/w/hall/bench?log=down&f=3");
  expect(session.benchStore.getState()).toMatchObject({ log: "down", frame: 3 });
  act(() => {
    for (let frame = 4; frame < 9; frame++) session.playing.showFrame(frame);
  });
  expect(address()).toContain("f=3");
  await rest();
  expect(address()).toBe("/w/hall/bench?room=room-1&log=down&f=8");
});

it("Back leads to the log and the room that were chosen before; frames in between are passed over", async () => {
  const { router, address } = await at("/w/hall/bench?log=down&f=3");
  await rest();
  const choose = async (log: string): Promise<void> => {
    act(() => session.shownLog.selectLog(log));
    await rest();
  };
  await choose("along");
  for (const frame of [1, 2, 3]) {
    act(() => session.playing.showFrame(frame));
    await rest();
  }
  await choose("down");
  expect(address()).toContain("log=down");
  await act(async () => void (await router.navigate(-1)));
  expect(session.benchStore.getState().log).toBe("along");
  await rest();
  expect(address()).toBe("/w/hall/bench?room=room-1&log=along&f=3");
  await act(async () => void (await router.navigate(-1)));
  await rest();
  expect(session.benchStore.getState().log).toBe("down");
  await act(async () => void (await router.navigate(1)));
  await rest();
  expect(session.benchStore.getState().log).toBe("along");
});

it("does not call back somebody who goes to an area that is still being loaded", async () => {
  const { router, arrives, address } = await at("/w/hall/bench?log=down&f=3");
  act(() => session.playing.showFrame(5));
  act(() => void router.navigate("/w/hall/proofs"));
  await rest();
  expect(router.state.navigation.state).toBe("loading");
  arrives();
  await rest();
  expect(address()).toBe("/w/hall/proofs");
});

it("does not call back somebody who has gone already, though React has not shown it yet", async () => {
  const { router, arrives, address } = await at("/w/hall/bench?log=down&f=3");
  arrives();
  await router.navigate("/w/hall/proofs");
  await rest();
  session.asked.writeAddress.ask("hall", "f=9");
  await rest();
  expect(address()).toBe("/w/hall/proofs?f=9");
  // Of a world that is no longer shown nothing is said.
  await router.navigate("/elsewhere");
  session.asked.writeAddress.ask("hall", "f=12");
  await rest();
  expect(address()).toBe("/elsewhere");
});
