import fc from "fast-check";
import { expect, it } from "vitest";
import type { Project } from "./project.ts";
import { checkText } from "../checks/check.ts";
import { readLog } from "../logs/read-log.ts";
import { writeLog } from "../logs/write-log.ts";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { traceText } from "../simulation/trace.ts";
import { anyFullLogOf } from "../test-support/any-full-log.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { told } from "../test-support/told.ts";
import { removeFlag, renameFlag, setFlag } from "./flags.ts";
import { addRoom, changeRoomId, copyRoom, renameRoom } from "./rooms.ts";
import { copyRuleSet, renameRuleSet } from "./rule-sets.ts";
import { copyTile, moveTile } from "./tiles.ts";

/** The log's run as the trace writes it, and how its checks end. */
function ranIn({ world, logs }: Project): { readonly trace: string; readonly verdicts: string[] } {
  const log = readLog(logs.get("walk")!);
  const c = compile(world, log.rules ?? undefined);
  const { rows, verdicts } = run(c, log, { rows: true, checks: true });
  return {
    trace: [...traceText(c, rows!)].join(""),
    verdicts: verdicts.map(({ check, verdict, frame, seen }) => `${check}: ${verdict} ${frame} ${seen ?? ""}`),
  };
}

/** Changes after which every log must do what it did, but for names: what it wrote before, as it must write it now. */
const CHANGES: readonly {
  readonly name: string;
  readonly how: (project: Project) => Project;
  readonly renamed?: (text: string) => string;
}[] = [
  {
    name: "a room under another id",
    how: (project) => changeRoomId(project, "b", "zelle").project,
    renamed: (text) => text.replace(/\bb\b(?!-)/g, "zelle"),
  },
  {
    name: "a room called otherwise",
    how: (project) => ({ ...project, world: renameRoom(project.world, "a", "Anteroom") }),
  },
  { name: "a room more", how: (project) => ({ ...project, world: addRoom(project.world, "attic", "Attic", 4, 4) }) },
  { name: "a copy of a room", how: (project) => ({ ...project, world: copyRoom(project.world, "c") }) },
  { name: "a tile copied", how: (project) => ({ ...project, world: copyTile(project.world, "block") }) },
  { name: "a tile moved", how: (project) => ({ ...project, world: moveTile(project.world, "block", 3) }) },
  {
    name: "a flag called otherwise",
    how: (project) => ({ ...project, world: renameFlag(project.world, "solid", "hard") }),
  },
  {
    name: "a flag that nobody asks for, given and taken away",
    how: (project) => ({
      ...project,
      world: removeFlag(
        setFlag({ ...project.world, flags: [...project.world.flags, "wet"] }, ["block"], "wet", true),
        "wet",
      ),
    }),
  },
  { name: "a rule set more", how: (project) => ({ ...project, world: copyRuleSet(project.world, "main").world }) },
  {
    name: "a rule set called otherwise",
    how: (project) => ({ ...project, world: renameRuleSet(project.world, "main", "Chief") }),
  },
];

it.each(CHANGES)(
  "after $name every log runs as before, and its checks end as before",
  ({ how, renamed = (text) => text }) => {
    const seen = { rows: 0, checks: 0, other: 0 };
    fc.assert(
      fc.property(
        // What counts all fixtures of the world, as a lock or a goal on everything collected does, is counted anew where a room
        // is copied, and a copied door opens and closes with its circuit, too.
        anyHouse
          .map((world) => ({
            ...world,
            goal: world.goal?.kind === "collect" ? null : world.goal,
            rooms: world.rooms.map((room) => ({
              ...room,
              fixtures: room.fixtures.filter(
                (each) =>
                  each.kind !== "door" ||
                  (each.lock.kind !== "collected" && (room.id !== "c" || each.lock.kind !== "circuit")),
              ),
            })),
          }))
          .chain((world) => fc.tuple(fc.constant(world), anyFullLogOf(world))),
        ([world, log]) => {
          const project: Project = { world, logs: new Map([["walk", writeLog({ ...log, world: null })]]) };
          const after = how(project);
          const [before, now] = [ranIn(project), ranIn(after)];
          expect(now.trace).toBe(renamed(before.trace));
          expect(now.verdicts).toEqual(before.verdicts.map(renamed));
          expect(readLog(after.logs.get("walk")!).checks.map(checkText)).toEqual(
            log.checks.map(checkText).map(renamed),
          );
          seen.rows += before.trace.split("\n").length;
          seen.checks += before.verdicts.length;
          if (before.trace !== now.trace) seen.other++;
        },
      ),
      { ...FIXED, numRuns: 60 },
    );
    told("runs that stay", seen);
    expect(seen.checks).toBeGreaterThan(30);
  },
);
