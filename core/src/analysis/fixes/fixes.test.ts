import fc from "fast-check";
import { expect, it } from "vitest";
import type { Check } from "../../checks/check.ts";
import { parseCheck } from "../../checks/check.ts";
import { logHolds } from "../../checks/verdict.ts";
import { compile } from "../../simulation/compile.ts";
import { run } from "../../replay/run.ts";
import { FIXED, anyGait, anyLog, anyRows } from "../../test-support/arbitraries.ts";
import { told } from "../../test-support/told.ts";
import { tinyLog, tinyWorld } from "../../test-support/tiny-world.ts";
import type { World } from "../../world/world.ts";
import { settingFault, settingByPath } from "../../world/settings.ts";
import { changeSize, singleChanges } from "./candidates.ts";
import { changeText, changedWorld, isOfRules } from "./single-change.ts";
import { beginTrying, isFix, tryChange } from "./try-change.ts";

function checkOf(text: string): Check {
  const parsed = parseCheck(text.split(" "));
  if ("fault" in parsed) throw new Error(parsed.fault);
  return parsed.check;
}
const log = (keys: string, ...checks: string[]) => ({ ...tinyLog(keys), checks: checks.map(checkOf) });

it("finds what mends a runaway, smallest first, and leaves out what breaks another log", () => {
  const world = tinyWorld(["S....."], { glide: { speed: 7, arrive: "equal" } });
  // Two cells in five frames want 8 px; the other log wants to be on its way still after one.
  const broken = log("4 R,1 .", "end aligned strictly", "end cell 2 0");
  const fixed = (logs: Record<string, typeof broken>): string[] => {
    const trying = beginTrying(world, new Map(Object.entries({ broken, ...logs })), "broken");
    expect(trying.findings.map(({ kind }) => kind)).toEqual(["speed that does not fit"]);
    return singleChanges(
      world,
      world.rules[0]!,
      trying.findings.flatMap(({ cures }) => cures),
    )
      .filter((change) => isFix(tryChange(trying, change)))
      .map((change) => changeText(world, world.rules[0]!, change));
  };
  expect(fixed({})).toEqual(["Speed 7 to 8 px", "Arrive equal to land"]);
  expect(fixed({ other: log("2 R", "end aligned strictly") })).toEqual(["Speed 7 to 8 px", "Arrive equal to land"]);
  expect(fixed({ other: log("1 R", "at 1 pixel 7 0") })).toEqual(["Arrive equal to land"]);
  const trial = tryChange(beginTrying(world, new Map([["broken", broken]]), "broken"), {
    path: "glide.arrive",
    value: "land",
  });
  expect(trial).toMatchObject({ holds: true, differs: true, breaks: [], cures: [0] });
});

it("tries nothing that a rule set may not say, and nothing twice; what mends, mends", () => {
  let fixes = 0;
  fc.assert(
    fc.property(anyRows, anyGait, anyLog, (rows, options, keys) => {
      const world = tinyWorld(rows, options);
      const rules = world.rules[0]!;
      const changes = singleChanges(world, rules);
      expect(new Set(changes.map((change) => JSON.stringify(change))).size).toBe(changes.length);
      const sizes = changes.map((change) => changeSize(rules, change));
      expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
      for (const { path, value } of changes) {
        const setting = settingByPath(path);
        if (setting !== undefined) expect(settingFault(setting, value, world.tileSize)).toBeNull();
      }
      const watched = { ...keys, checks: [checkOf("never event bump")] };
      const trying = beginTrying(world, new Map([["watched", watched]]), "watched");
      for (const change of changes.slice(0, 12)) {
        const trial = tryChange(trying, change);
        expect(trial.holds).toBe(
          logHolds(run(compile(changedWorld(world, "main", change)), watched, { checks: true }).verdicts),
        );
        if (trial.holds) fixes++;
      }
    }),
    { ...FIXED, numRuns: 100 },
  );
  told("trials", { fixes });
  expect(fixes).toBeGreaterThan(50);
});

it("reaches fixtures and cells: a lock's count, what a fixture keeps, one cell opened", () => {
  const base = tinyWorld(["S..#."], { glide: { speed: 16 } });
  const room = base.rooms[0]!;
  const common = { touch: "cell", keeps: "run" } as const;
  const world: World = {
    ...base,
    items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }],
    rooms: [
      {
        ...room,
        fixtures: [
          { ...common, id: "key-1", kind: "item", cell: [1, 0], give: "key", count: 1 },
          {
            ...common,
            id: "door-1",
            kind: "door",
            cell: [2, 0],
            lock: { kind: "item", item: "key", count: 2, spends: false },
            opensOn: "push",
            closes: "never",
          },
        ],
      },
    ],
  };
  const fixed = (broken: ReturnType<typeof log>): string[] => {
    const trying = beginTrying(world, new Map([["broken", broken]]), "broken");
    const rules = world.rules[0]!;
    return singleChanges(world, rules, [], trying.stops)
      .filter((change) => isFix(tryChange(trying, change)))
      .map((change) => changeText(world, rules, change));
  };
  expect(fixed(log("6 R", "ever cell 2 0"))).toEqual(
    expect.arrayContaining(["key-1 gives 1 to 2", "door-1 asks for 2 to 1"]),
  );
  const opened = { ...log("6 R", "end cell 4 0"), with: [{ kind: "open", fixture: "door-1" }] } as const;
  expect(fixed(opened).some((text) => text.startsWith("A 3,0 to "))).toBe(true);
});

it("of the rule set that a log goes by are settings, the gait and the body, and what is changed in a room is not", () => {
  const paths = ["gait", "walker.body", "walker.blockedBy", "glide.speed", "fixture", "cell", "link", "actor"];
  expect(paths.filter((path) => isOfRules({ path, value: 1 }))).toEqual(paths.slice(0, 4));
});
