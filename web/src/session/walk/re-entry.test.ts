import { readLog } from "@keen-pebble/core/check";
import type { Fixture, World } from "@keen-pebble/core/world";
import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, until } from "../../test-support/opened.ts";

const { reEntries, benchStore } = session;
const project = () => session.project.store.getState().project!;
const state = () => reEntries.store.getState();
const LOG = ALONG.replace("32 R\n8 .", "16 R");

/** Two halls side by side; in the first one a key that is there again after each visit. */
function halls(isOpen: boolean): World {
  const bare = hall();
  const [room] = bare.rooms;
  const link = (to: string) => ({ kind: "link", room: to, offset: 0 }) as const;
  const key = {
    ...{ id: "key-1", kind: "item", cell: [3, 2], give: "key", count: 1, touch: "cell", keeps: "visit" },
  } as unknown as Fixture;
  return {
    ...bare,
    items: [{ id: "key", name: "Key", role: "key", colour: "#ffcc00" }],
    rooms: [
      {
        ...room!,
        width: 5,
        cells: new Uint16Array(5 * room!.height),
        fixtures: [key],
        edges: { ...room!.edges, west: isOpen ? link("b") : { kind: "wall" } },
      },
      { ...room!, id: "b", name: "B", edges: { ...room!.edges, east: link(room!.id) } },
    ],
  };
}

let opened: Opened;
async function open(isOpen: boolean): Promise<void> {
  opened = await openHere(halls(isOpen), { along: LOG }, [], [reEntries.startReEntry]);
  session.shownLog.selectLog("along");
  await until(() => benchStore.getState().run !== null);
  session.playing.showFrame(16);
}
beforeEach(() => benchStore.setState({ log: null }));
afterEach(() => opened.close());

it("goes out of the shown frame's room and back, tells what that changed, and is kept as a log that proves it", async () => {
  await open(true);
  const testing = reEntries.testReEntry();
  expect(state()).toMatchObject({ phase: "looking", room: project().world.start.room });
  await testing;
  expect(state()).toMatchObject({ phase: "done", room: project().world.start.room });
  reEntries.keepReEntry();
  const kept = benchStore.getState().log!;
  const log = readLog(project().logs.get(kept)!);
  expect(log.title).toBe(`Out of ${project().world.start.room} and back`);
  expect(log.checks.length).toBeGreaterThan(0);
  await until(() => benchStore.getState().run?.verdicts.every(({ verdict }) => verdict === "pass"));
  // Another log is another world of logs: nothing is left of what was tested.
  expect(state().phase).toBe("none");
  reEntries.keepReEntry();
  expect(project().logs.size).toBe(2);
  reEntries.keepForTheRun("key-1");
  expect(project().world.rooms[0]!.fixtures[0]!.keeps).toBe("run");
});

it("says that it found no way where there is none, and nothing of a world that has changed meanwhile", async () => {
  await open(false);
  await reEntries.testReEntry();
  expect(state()).toMatchObject({ phase: "not found", room: project().world.start.room, exhaustive: true });
  const testing = reEntries.testReEntry();
  session.project.changeWorld((world) => ({ ...world, name: "Other" }));
  await testing;
  expect(state()).toEqual({ phase: "none" });
});

it("tests nothing where no log or run is shown", async () => {
  await open(true);
  for (const part of [{ log: null }, { log: "along", run: null }]) {
    benchStore.setState(part);
    await reEntries.testReEntry();
    expect(state().phase).toBe("none");
  }
});
