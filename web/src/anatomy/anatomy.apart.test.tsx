// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { act, cleanup, render, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { session } from "../page-session.ts";
import { ALONG, hall } from "../test-support/hall.ts";
import { openHere, until } from "../test-support/opened.ts";
import { Anatomy } from "./anatomy.tsx";

/** Paths of the settings that were drawn. */
const drawn: string[] = [];
vi.mock("./hinted.tsx", () => ({
  Hinted: ({ path, children }: { readonly path: string; readonly children: React.ReactNode }) => {
    drawn.push(path);
    return <div>{children}</div>;
  },
}));

// Pictures need a canvas, and the menu a package that only a bundler can load.
vi.mock("../field/walker-image.tsx", () => ({ WalkerImage: () => null }));
vi.mock("./rules-menu.tsx", () => ({ RulesMenu: () => null }));

it("shows the values of each frame, and draws its settings again only where the rules are others", async () => {
  const { close } = await openHere(hall(), { along: ALONG });
  session.shownLog.selectLog("along");
  await until(() => session.benchStore.getState().explanation !== null);
  render(<Anatomy />);
  expect(drawn).toContain("glide.speed");
  const progress = (): string | undefined =>
    screen.getByRole("region", { name: "Motion" }).querySelector(".value")?.textContent;
  drawn.length = 0;
  const seen = [progress()];
  for (const frame of [3, 5]) {
    await act(async () => {
      session.playing.showFrame(frame);
      await until(() => session.benchStore.getState().explanation?.frame === frame);
    });
    seen.push(progress());
  }
  expect(new Set(seen).size).toBe(3);
  expect(drawn).toEqual([]);
  act(() => void session.ruleSets.changeSetting("main", "glide.speed", 2, 4, null));
  expect(drawn).toContain("glide.speed");
  cleanup();
  close();
});
