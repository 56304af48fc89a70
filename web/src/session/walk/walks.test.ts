import { session } from "../../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { FACINGS } from "@keen-pebble/core/world";
import { checkText, logFrames, parseCheck, readLog } from "@keen-pebble/core/check";
import { compile, run } from "@keen-pebble/core/simulate";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { hall } from "../../test-support/hall.ts";
import type { OfferedWalk } from "../bench/bench-store.ts";

const frames: FrameRequestCallback[] = [];
let now = 0;
let stopWalks: () => void;

beforeEach(() => {
  now = 0;
  frames.length = 0;
  vi.spyOn(performance, "now").mockImplementation(() => now);
  vi.stubGlobal("requestAnimationFrame", (callback: FrameRequestCallback) => frames.push(callback));
  session.project.store.setState({ phase: "ready", project: { world: hall(), logs: new Map() }, worldId: null });
  session.benchStore.setState({
    log: null,
    parsed: null,
    run: null,
    walk: null,
    frame: 0,
    room: hall().rooms[0]!.id,
    explanation: null,
  });
  stopWalks = session.walks.startWalks();
});
afterEach(() => {
  session.walks.endWalk();
  stopWalks();
  session.project.closeProject();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

/** Shows a log that goes by a rule set. */
function show(rules: string): void {
  const text = `keen-pebble-inputs 1\nrules ${rules}\n---\n1 .\n`;
  session.project.store.setState(({ project }) => ({ project: { ...project!, logs: new Map([["old", text]]) } }));
  session.benchStore.setState({ log: "old", parsed: readLog(text) });
}
/** Shows a frame of a log as the Bench does once its run is there. */
function shownAt(text: string, frame: number, rules: string | null = null): void {
  session.project.store.setState(({ project }) => ({ project: { ...project!, logs: new Map([["old", text]]) } }));
  const { rows, ...result } = run(compile(world()), readLog(text), { rows: true, checks: true });
  session.benchStore.setState({
    log: "old",
    parsed: { ...readLog(text), rules },
    frame,
    run: { log: "old", ...result, rows: rows!, took: 0, changedAt: null },
  });
}
const press = (code: string): void => void window.dispatchEvent(new KeyboardEvent("keydown", { code }));
const letGo = (code: string): void => void window.dispatchEvent(new KeyboardEvent("keyup", { code }));

/** Lets so many frames of 1/60 s pass. */
function pass(count: number): void {
  for (let i = 0; i < count; i++) {
    now += 1000 / 60 + 0.001;
    for (const callback of frames.splice(0)) callback(now);
  }
}
const place = (): readonly [number, number] => {
  const { rows } = session.benchStore.getState().walk!;
  return [rows.x[rows.count - 1]! / 256, rows.y[rows.count - 1]! / 256];
};
const offered = (): OfferedWalk => {
  const { walk } = session.benchStore.getState();
  if (walk?.phase !== "offered") throw new Error("no walk is offered");
  return walk;
};
const checks = (): string[] => offered().checks.map(checkText);
const world = (): World => session.project.store.getState().project!.world;

describe("a walk", () => {
  it("hears its keys wherever the focus is, also where they are kept from everybody else", () => {
    const field = document.body.appendChild(document.createElement("input"));
    for (const name of ["keydown", "keyup"]) field.addEventListener(name, (event) => event.stopPropagation());
    const type = (name: string): void =>
      void field.dispatchEvent(new KeyboardEvent(name, { code: "ArrowRight", bubbles: true }));
    session.walks.beginWalk();
    const [from] = place();
    type("keydown");
    pass(10);
    type("keyup");
    pass(30);
    const [x] = place();
    expect(x).toBeGreaterThan(from);
    pass(30);
    expect(place()[0]).toBe(x);
    field.remove();
  });

  it("goes by the rule set that is shown, and is kept with it", () => {
    show("free");
    session.walks.beginWalk();
    press("ArrowRight");
    pass(7);
    session.walks.endWalk();
    // Roaming at 1 px a frame, not gliding at 2.
    expect(place()).toEqual([39, 32]);
    session.offeredWalk.keepWalk("Free", offered().checks);
    expect(
      readLog([...session.project.store.getState().project!.logs].find(([id]) => id === "free")![1]),
    ).toMatchObject({ rules: "free", title: "Free" });
  });

  it("is offered with checks that it passes and that can be read again: none of the grid where the walker leaves it", () => {
    for (const [rules, expected] of [
      ["main", ["end cell 3 2", "always aligned"]],
      ["free", ["end cell 2 2", "never overlap"]],
      ["ice", ["end cell 4 2", "never overlap"]],
    ] as const) {
      show(rules);
      session.walks.beginWalk();
      press("ArrowRight");
      pass(7);
      letGo("ArrowRight");
      pass(60);
      session.walks.endWalk();
      expect(checks()).toEqual(expected);
      const log = { ...offered().log, checks: offered().checks };
      expect(
        run(compile(world(), rules), log, { checks: true }).verdicts.every(({ verdict }) => verdict === "pass"),
      ).toBe(true);
      session.benchStore.setState({ walk: null });
    }
  });

  it("ends outside the map without a check on a cell that no check can name", () => {
    const open = hall();
    session.project.store.setState({
      project: {
        world: {
          ...open,
          rooms: [{ ...open.rooms[0]!, cells: new Uint16Array(open.rooms[0]!.cells.length) }],
          start: { ...open.start, cell: [0, 2] },
          rules: [
            {
              ...open.rules[1]!,
              walker: { ...open.rules[1]!.walker, body: { kind: "probes", points: [[20, 8]], flush: "free" } },
            },
          ],
          activeRules: "free",
        },
        logs: new Map(),
      },
    });
    session.walks.beginWalk();
    press("ArrowLeft");
    pass(40);
    expect(checks()).toEqual(["end status escaped", "always aligned"]);
    for (const check of checks()) expect(parseCheck(check.split(" "))).toHaveProperty("check");
  });

  it("goes by a setting from the next frame on, and says the first frame that its replay differs in", () => {
    session.walks.beginWalk();
    press("ArrowRight");
    pass(8);
    const [before] = place();
    expect(before).toBe(32 + 2 * 8);
    expect(session.ruleSets.changeSetting("main", "glide.speed", 2, 4, null)).toBe(true);
    pass(4);
    expect(place()[0]).toBe(before + 4 * 4);
    session.walks.endWalk();
    // All of it at 4 px a frame: what was kept is what the log says.
    expect(place()[0]).toBe(32 + 4 * 12);
    expect(offered().differs).toBe(1);
    expect(checks()).toContain("end cell 5 2");
  });

  it("that nothing changed under is its own replay", () => {
    session.walks.beginWalk();
    press("ArrowDown");
    pass(30);
    session.walks.endWalk();
    expect(offered().differs).toBeNull();
  });

  it("loses no tap that is shorter than a frame", () => {
    session.walks.beginWalk();
    pass(2);
    press("ArrowRight");
    letGo("ArrowRight");
    pass(20);
    // One frame held, and the leg that it began.
    expect([...session.benchStore.getState().walk!.rows.keys].filter((keys) => keys !== 0)).toEqual([2]);
    expect(place()).toEqual([48, 32]);
  });

  it("goes on where it is under another gait, on no leg", () => {
    session.walks.beginWalk();
    press("ArrowRight");
    pass(3);
    expect(place()[0]).toBe(38);
    session.project.changeWorld((old) => ({
      ...old,
      rules: old.rules.map((rules) => (rules.id === "main" ? { ...rules, gait: "roam" as const } : rules)),
    }));
    letGo("ArrowRight");
    press("ArrowDown");
    pass(5);
    expect(place()).toEqual([38, 37]);
  });

  it("is walked again up to here where what it remembers is another thing now", () => {
    const [room] = hall().rooms;
    session.walks.beginWalk();
    press("ArrowRight");
    pass(10);
    session.project.change((project) => ({
      ...project,
      world: {
        ...project.world,
        items: [{ id: "bead", name: "Bead", role: "treasure", colour: "#5fb7a5" }],
        rooms: [
          {
            ...project.world.rooms[0]!,
            fixtures: [
              { id: "bead-1", kind: "item", cell: [3, 2], touch: "cell", keeps: "run", give: "bead", count: 2 },
            ],
          },
        ],
      },
    }));
    pass(1);
    expect(session.benchStore.getState().explanation?.remembered.bag).toEqual([2]);
    expect(place()[0]).toBe(32 + 2 * 11);
    expect(room!.fixtures).toEqual([]);
  });

  it("stops where nobody can walk any more, and stays in this browser", () => {
    show("free");
    session.walks.beginWalk();
    press("ArrowRight");
    pass(5);
    session.project.changeWorld((old) => ({ ...old, rules: old.rules.filter(({ id }) => id !== "free") }));
    pass(1);
    expect(session.benchStore.getState().walk).toBeNull();
    expect(session.project.store.getState().notice?.text).toContain("It stays in this browser");
  });

  it("that a fault of ours ends is not said to be one that the world ends", () => {
    session.project.store.setState({ notice: null });
    session.walks.beginWalk();
    press("ArrowRight");
    pass(3);
    session.walks.walk!.follow({} as World);
    expect(() => pass(1)).toThrow(TypeError);
    expect(session.project.store.getState().notice).toBeNull();
    session.walks.walk!.follow(world());
  });
});

it("whoever is set down inside what blocks it is told so, and may walk out all the same", () => {
  const world = hall();
  const [room] = world.rooms;
  const wall = world.tiles.findIndex(({ flags }) => flags.includes("solid"));
  session.project.store.setState({
    project: {
      world: {
        ...world,
        rooms: [{ ...room!, cells: room!.cells.map((tile, i) => (i === 3 * room!.width ? wall : tile)) }],
      },
      logs: new Map(),
    },
  });
  session.walks.setDown(0, 3);
  expect(session.project.store.getState().notice).toEqual({
    tone: "info",
    text: "The walker stands in something that blocks it, in cell 0,3.",
  });
  session.walks.endWalk();
  session.project.store.setState({ notice: null });
  session.walks.setDown(2, 3);
  expect(session.project.store.getState().notice).toBeNull();
});

it("that goes on from a log's frame is offered to be kept in it, its first part as it was", () => {
  const text = "keen-pebble-inputs 1\ncheck end cell 4 2\n---\n16 R\n8 .\n";
  shownAt(text, 16);
  session.walks.goOnWalking();
  press("ArrowDown");
  pass(8);
  session.walks.endWalk();
  expect([offered().onto, offered().differs, place()]).toEqual(["old", null, [64, 48]]);
  session.offeredWalk.keepInLog();
  expect(session.project.store.getState().project!.logs.get("old")).toBe(
    "keen-pebble-inputs 1\ncheck end cell 4 2\n---\n16 R\n8 D\n",
  );
});

describe("the keys of a walk", () => {
  const held = (): number => session.benchStore.getState().walk!.rows.keys.at(-1)!;

  it("are the walker's while its field is shown, and somebody else's while it is not: all are let go, no frame passes", () => {
    expect([session.walks.isWalking(), session.walks.walkTakesKeys()]).toEqual([false, false]);
    session.walks.showsField(true);
    session.walks.beginWalk();
    expect([session.walks.isWalking(), session.walks.walkTakesKeys()]).toEqual([true, true]);
    press("ArrowRight");
    pass(3);
    session.walks.showsField(false);
    expect([session.walks.isWalking(), session.walks.walkTakesKeys()]).toEqual([true, false]);
    press("ArrowDown");
    pass(20);
    expect(session.benchStore.getState().frame).toBe(3);
    session.walks.showsField(true);
    expect(session.walks.walkTakesKeys()).toBe(true);
    // One frame's time from now, not from when it stood still; and of what was held before nothing is.
    pass(1);
    expect([session.benchStore.getState().frame, held()]).toEqual([4, 0]);
  });

  it("with Ctrl, Alt or Meta, and keys that are no button, are the page's; those of the walker are nobody else's", () => {
    session.walks.beginWalk();
    const typed = (code: string, more: KeyboardEventInit = {}): boolean => {
      const event = new KeyboardEvent("keydown", { code, cancelable: true, ...more });
      window.dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect([
      typed("ArrowRight", { ctrlKey: true }),
      typed("ArrowRight", { altKey: true }),
      typed("ArrowRight", { metaKey: true }),
      typed("KeyZ"),
    ]).toEqual([false, false, false, false]);
    pass(2);
    expect(held()).toBe(0);
    expect(typed("KeyD")).toBe(true);
    pass(1);
    expect(held()).toBe(2);
    // Two keys of one button: it is held until the last one is let go.
    press("ArrowRight");
    letGo("KeyD");
    pass(1);
    expect(held()).toBe(2);
    letGo("ArrowRight");
    pass(1);
    expect(held()).toBe(0);
    // Neither Escape nor a key of the walker is anybody else's while one walks.
    const heard: string[] = [];
    const hear = (event: KeyboardEvent): void => void heard.push(event.code);
    window.document.body.addEventListener("keydown", hear);
    for (const code of ["ArrowUp", "KeyZ", "Escape"])
      window.document.body.dispatchEvent(new KeyboardEvent("keydown", { code, bubbles: true, cancelable: true }));
    window.document.body.removeEventListener("keydown", hear);
    expect([heard, session.walks.isWalking()]).toEqual([["KeyZ"], false]);
    expect(offered().rows.count).toBe(6);
    // It is over: no frame passes, whatever is pressed or shown.
    session.walks.showsField(true);
    expect(typed("Escape")).toBe(false);
    pass(2);
    expect(offered().rows.count).toBe(6);
  });

  it("are let go when the window is left", () => {
    session.walks.beginWalk();
    press("ArrowRight");
    pass(1);
    window.dispatchEvent(new Event("blur"));
    pass(1);
    expect(held()).toBe(0);
  });

  it("that were never pressed leave no walk to keep, also behind a log that presses some", () => {
    session.walks.beginWalk();
    pass(9);
    session.walks.endWalk();
    expect([session.benchStore.getState().walk, session.benchStore.getState().tool]).toEqual([null, "paint"]);
    shownAt("keen-pebble-inputs 1\n---\n16 R\n", 16);
    session.walks.goOnWalking();
    pass(9);
    session.walks.endWalk();
    expect(session.benchStore.getState().walk).toBeNull();
  });
});

it("a walk is kept in this browser every 60 frames, and once more at its end", () => {
  const kept = vi.spyOn(session.offeredWalk, "rememberWalk").mockImplementation(() => undefined);
  session.walks.beginWalk();
  press("ArrowRight");
  pass(59);
  expect(kept).not.toHaveBeenCalled();
  pass(90);
  session.walks.endWalk();
  const frameCounts = kept.mock.calls.map(([log]) => logFrames(log));
  expect(frameCounts).toEqual([60, 120, 149]);
  expect(kept.mock.calls.map(([, onto, discarded]) => [onto, discarded])).toEqual([
    [null, false],
    [null, false],
    [null, false],
  ]);
});

describe("time", () => {
  it("that the page stood still is made up for by six frames at the most", () => {
    session.walks.beginWalk();
    now += 5000;
    for (const callback of frames.splice(0)) callback(now);
    expect(session.benchStore.getState().frame).toBe(6);
    pass(1);
    expect(session.benchStore.getState().frame).toBe(7);
  });
});

describe("where nobody can walk", () => {
  const notice = (): string => session.project.store.getState().notice!.text;

  it("it is said and nothing begins; a walk that is under way is not begun again", () => {
    session.walks.beginWalk({ room: "gone", cell: [0, 0], facing: "down" });
    expect(notice()).toContain("Nobody can walk here yet: ");
    expect([session.walks.isWalking(), session.benchStore.getState().walk]).toEqual([false, null]);
    session.walks.beginWalk();
    press("ArrowRight");
    pass(4);
    session.walks.beginWalk();
    expect(session.benchStore.getState().frame).toBe(4);
  });

  it("no log that is shown has nothing to go on from, and one that cannot be run says so", () => {
    session.walks.goOnWalking();
    expect(session.walks.isWalking()).toBe(false);
    shownAt("keen-pebble-inputs 1\n---\n16 R\n", 4, "gone");
    session.walks.goOnWalking();
    expect(notice()).toContain("Nobody can go on from here: ");
    expect(session.walks.isWalking()).toBe(false);
  });
});

describe("the pointer", () => {
  const byPointer = (): void =>
    void session.project.changeWorld((old) => ({
      ...old,
      rules: old.rules.map((rules) => ({ ...rules, facing: { ...rules.facing, source: "pointer" as const } })),
    }));

  it("is where the walker looks under rules that say so, and is kept in the walk", () => {
    byPointer();
    session.benchStore.setState({ pointer: null });
    session.walks.beginWalk();
    press("ArrowDown");
    pass(1);
    session.benchStore.setState({ pointer: { x: 5, y: 40.5 } });
    pass(1);
    session.benchStore.setState({ pointer: { x: 100, y: 40.5 } });
    pass(1);
    const { rows } = session.benchStore.getState().walk!;
    const [, ...facings] = rows.facing;
    expect(facings.slice(0, 3).map((each) => FACINGS[each])).toEqual(["down", "left", "right"]);
    session.walks.endWalk();
    expect(offered().log.lines).toMatchObject([
      { pointer: null },
      { pointer: { x: 5, y: 40.5 } },
      { pointer: { x: 100, y: 40.5 } },
    ]);
    expect(offered().differs).toBeNull();
    session.benchStore.setState({ pointer: null });
  });

  it("sets the walker down on the cell under it, inside the room alone, and looking as in the shown frame", () => {
    session.benchStore.setState({ pointer: null });
    session.walks.setDownAtPointer();
    expect(session.walks.isWalking()).toBe(false);
    for (const [x, y] of [
      [-1, 0],
      [0, -1],
      [20, 0],
      [0, 12],
    ] as const) {
      session.walks.setDown(x, y);
      expect(session.walks.isWalking()).toBe(false);
    }
    session.benchStore.setState({ pointer: { x: 19 * 16 + 15, y: 11 * 16 } });
    session.walks.setDownAtPointer();
    expect(place()).toEqual([19 * 16, 11 * 16]);
    session.walks.endWalk();
    shownAt("keen-pebble-inputs 1\n---\n16 R\n16 L\n", 4);
    session.walks.setDown(0, 0);
    expect(session.benchStore.getState().walk).toMatchObject({ log: { start: { cell: [0, 0], facing: "right" } } });
  });
});
