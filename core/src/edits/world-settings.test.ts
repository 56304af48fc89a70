import { describe, expect, it } from "vitest";
import { startFinding } from "../analysis/findings/start-finding.ts";
import { invariantFault } from "../checks/invariants.ts";
import { readWorld } from "../formats/read-world.ts";
import { writeWorld } from "../formats/write-world.ts";
import { readLog } from "../logs/read-log.ts";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { emptyWorld } from "../world/empty-world.ts";
import type { World } from "../world/world.ts";
import { changeActor, placeActor } from "./actors.ts";
import { moveStart, scaleCells, turnStart } from "./world-settings.ts";

describe("a start that the walker cannot leave", () => {
  const said = (rows: string[], change: (world: World) => World = (world) => world): string | undefined =>
    startFinding(change(tinyWorld(rows)))?.message;
  it("is told with a cell that is better", () => {
    expect(said(["S."])).toBeUndefined();
    expect(said(["S#.", "#..", "..."])).toBe(
      "the walker starts shut in, with nothing free beside it: cell 2,0 is free",
    );
    expect(said(["#..", "S##"], (world) => moveStart(world, "a", [0, 0]))).toBe(
      "the walker starts inside something that blocks it: cell 1,0 is free",
    );
    expect(said(["S#", "##"])).toBe(
      "the walker starts shut in, with nothing free beside it: no other cell of the room is better",
    );
    const finding = startFinding(tinyWorld(["S#.", "#.."]))!;
    const mended = moveStart(tinyWorld(["S#.", "#.."]), finding.start!.room, finding.start!.cell);
    expect(startFinding(mended)).toBeNull();
  });

  it("is none where a door, a portal or a side leads out", () => {
    const OWN = { id: "way", touch: "cell", keeps: "run" } as const;
    const shut = ["S#.", "#.."];
    const withOne =
      (fixture: World["rooms"][0]["fixtures"][0]) =>
      (world: World): World => ({
        ...world,
        rooms: [{ ...world.rooms[0]!, fixtures: [fixture] }],
      });
    const door = {
      ...OWN,
      kind: "door",
      cell: [0, 1],
      lock: { kind: "none" },
      opensOn: "push",
      closes: "never",
    } as const;
    expect(said(["S#.", ".#."], withOne(door))).toBeUndefined();
    expect(
      said(shut, withOne({ ...OWN, kind: "portal", cell: [0, 0], to: { room: "a", cell: [2, 1] } })),
    ).toBeUndefined();
    expect(
      said(["S#."], (world) => ({
        ...world,
        rooms: [
          { ...world.rooms[0]!, edges: { ...world.rooms[0]!.edges, west: { kind: "wrap" }, east: { kind: "wrap" } } },
        ],
      })),
    ).toBeUndefined();
    expect(startFinding(emptyWorld("new", "New", 16))).toBeNull();
    expect(startFinding(emptyWorld("new", "New", 16, [1, 1]))).not.toBeNull();
  });
});

describe("cells of another size", () => {
  const log = "keen-pebble-inputs 1\ncheck end pixel 32 16\n---\n32 R\n16 D\n";
  const start = tinyWorld(["S..../", ".....=", "......"], {
    glide: { speed: 1 },
    body: { kind: "box", box: [2, 4, 12, 12], flush: "free" },
  });

  it("scale shapes, bodies and the px that checks name, so that the same cells are walked", () => {
    const scaled = scaleCells({ world: start, logs: new Map([["walk", log]]) }, 32);
    if ("fault" in scaled) throw new Error(scaled.fault);
    const { world, logs } = scaled.project;
    expect(world.tiles[2]!.shape).toEqual({
      kind: "poly",
      points: [
        [32, 0],
        [32, 32],
        [0, 32],
      ],
    });
    expect(world.rules[0]!.walker.body).toMatchObject({ box: [4, 8, 24, 24] });
    expect(logs.get("walk")).toContain("check end pixel 64 32");
    expect(readWorld(writeWorld(world))).toEqual(world);
    // Twice as fast over cells of twice the size: every check holds as before.
    const fast = { ...world, rules: world.rules.map((rules) => ({ ...rules, glide: { ...rules.glide, speed: 2 } })) };
    for (const [each, text] of [
      [start, log],
      [fast, logs.get("walk")!],
    ] as const)
      expect(run(compile(each), readLog(text), { checks: true }).verdicts.map(({ verdict }) => verdict)).toEqual([
        "pass",
      ]);
    const back = scaleCells(scaled.project, 16);
    expect("project" in back && back.project.world).toEqual(start);
  });

  it.each<[number, string]>([
    [24, "the shape of"],
    [3, "a cell is a whole number of px from 4 to 128 wide"],
    [16.5, "a cell is a whole number of px"],
  ])("of %d px are refused with what does not fit", (size, fault) => {
    const odd = {
      ...start,
      tiles: start.tiles.map((tile) =>
        tile.shape.kind === "poly"
          ? {
              ...tile,
              shape: {
                kind: "poly" as const,
                points: [
                  [16, 1],
                  [16, 16],
                  [1, 16],
                ] as const,
              },
            }
          : tile,
      ),
    };
    expect(scaleCells({ world: odd, logs: new Map() }, size)).toMatchObject({
      fault: expect.stringContaining(fault) as string,
    });
  });

  it("scale the bodies of what moves by itself, which stays at most a cell a frame", () => {
    const guarded = changeActor(placeActor(start, "a", [1, 1]).world, "actor-1", (actor) => ({
      ...actor,
      body: [2, 4, 12, 10],
    }));
    const scaled = scaleCells({ world: guarded, logs: new Map() }, 32);
    if ("fault" in scaled) throw new Error(scaled.fault);
    expect(scaled.project.world.rooms[0]!.actors[0]!.body).toEqual([4, 8, 24, 20]);
    expect(readWorld(writeWorld(scaled.project.world))).toEqual(scaled.project.world);
    const fast = changeActor(guarded, "actor-1", (actor) => ({ ...actor, speed: 12 }));
    expect(scaleCells({ world: fast, logs: new Map() }, 8)).toEqual({
      fault: "Speed of actor-1 is 12; at most a cell a frame, 8",
    });
  });

  it("are refused where a speed is too high for them", () => {
    const fast = { ...start, rules: start.rules.map((rules) => ({ ...rules, glide: { ...rules.glide, speed: 16 } })) };
    expect(scaleCells({ world: fast, logs: new Map() }, 8)).toMatchObject({
      fault: expect.stringContaining("Speed of Main") as string,
    });
  });
});

it("a law is always or never, of what the world has", () => {
  const fault = (text: string) => invariantFault(tinyWorld(["S."]), text)?.message ?? null;
  expect(fault("never outside")).toBeNull();
  expect(fault("always aligned")).toBeNull();
  expect(fault("end cell 1 0")).toBe("expected always or never");
  expect(fault("never")).toContain("expected");
  expect(fault("always room b")).toContain('found "b"');
});

it("the start turns by quarters", () => {
  let world = tinyWorld(["S."]);
  const seen = [1, 2, 3, 4].map(() => (world = turnStart(world)).start.facing);
  expect(seen).toEqual(["left", "up", "right", "down"]);
});
