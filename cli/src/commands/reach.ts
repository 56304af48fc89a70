import type { ReachAnswer, Way } from "@keen-pebble/core/analyse";
import {
  NEVER,
  Reach,
  STATE_LIMIT,
  UNDECIDED,
  judgeChecks,
  reachJson,
  reachSentence,
  untestedBy,
  wayText,
} from "@keen-pebble/core/analyse";
import type { Start, World } from "@keen-pebble/core/world";
import { allFixtures } from "@keen-pebble/core/world";
import { NO, OK } from "../exit-codes.ts";
import { logFile, logFiles, worldFile, writeWhole } from "../files.ts";
import { ensureApart } from "../options.ts";
import { printBeside } from "../standard-output.ts";
import { UnusableOption } from "../unusable.ts";

export interface ReachOptions {
  readonly rules?: string;
  readonly from?: string;
  readonly states?: number;
  readonly json?: boolean;
  readonly strict?: boolean;
  readonly logs?: readonly string[];
  readonly witness?: string;
  readonly out?: string;
}

/** `reach WORLD`: what can be reached at all, by whatever play (formats.md section 7). */
export function reach(worldPath: string, options: ReachOptions): number {
  const print = printBeside(options.out);
  ensureApart(options.json ?? false, [["--out", options.out]]);
  if ((options.witness === undefined) !== (options.out === undefined))
    throw new UnusableOption("--witness and --out belong together: whose log, and where it is written");
  const world = worldFile(worldPath);
  const rules = options.rules ?? world.activeRules;
  const question = new Reach(world, {
    rules,
    limit: options.states ?? STATE_LIMIT,
    ...(options.from === undefined ? {} : { from: { start: startOf(world, options.from), with: [] } }),
  });
  const answer = question.answer();
  if (options.witness !== undefined) {
    const way = witness(world, question, options.witness);
    writeWhole(options.out!, [wayText(world, rules, way, `The way to ${options.witness}`)]);
  }
  const untested = options.logs === undefined ? null : untestedIn(world, options.logs, answer);
  if (options.json)
    print(JSON.stringify({ ...reachJson(world, rules, answer), ...(untested && { untested }) }, null, 2));
  else for (const line of lines(world, answer)) print(line);
  if (!options.json && untested !== null)
    print(`no log reaches: ${untested.fixtures.join(", ") || "no fixture is left out"}`);
  // The world's own checks are about its active rules and its own start.
  const isOwn = rules === world.activeRules && options.from === undefined;
  const checks = isOwn ? judgeChecks(world, question, world.reachChecks) : [];
  if (!options.json)
    for (const { check, verdict, seen } of checks)
      print(`${verdict}: ${check}${seen === null ? "" : `; seen: ${seen}`}`);
  const holds = checks.every(({ verdict }) => verdict !== "fail");
  return holds && (!options.strict || (isAllWell(answer) && checks.every(({ verdict }) => verdict === "pass")))
    ? OK
    : NO;
}

/** What can be reached and no row of the logs reached. */
function untestedIn(world: World, paths: readonly string[], answer: ReachAnswer) {
  const logs = logFiles(paths).map((file) => logFile(file, world));
  const { cells, fixtures } = untestedBy(world, logs, answer);
  return { rooms: Object.fromEntries(world.rooms.map(({ id }, room) => [id, cells[room]!])), fixtures };
}

/** `ROOM,X,Y`, facing as the world's start does. */
function startOf(world: World, text: string): Start {
  const found = /^([a-z0-9-]+),(\d{1,3}),(\d{1,3})$/.exec(text);
  if (found === null) throw new UnusableOption(`--from ${text}: expected ROOM,X,Y, such as ${world.start.room},2,3`);
  return { room: found[1]!, cell: [Number(found[2]), Number(found[3])], facing: world.start.facing };
}

function witness(world: World, question: Reach, id: string): Way {
  const fixture = allFixtures(world).findIndex((each) => each.id === id);
  if (fixture < 0) throw new UnusableOption(`--witness ${id}: this world has no such fixture`);
  const way = question.wayToFixture(fixture);
  if (way === null) throw new UnusableOption(`--witness ${id}: no way there is known`);
  return way;
}

function isAllWell({ exhaustive, goal, stuck, losable }: ReachAnswer): boolean {
  return exhaustive && (goal === null || goal >= 0) && (stuck?.states ?? 0) === 0 && losable?.length === 0;
}

function lines(world: World, answer: ReachAnswer): string[] {
  const said = (n: number): string =>
    n === NEVER ? "never" : n === UNDECIDED ? "open" : `${n} ${n === 1 ? answer.unit.slice(0, -1) : answer.unit}`;
  const cells = answer.first.flatMap((first) => [...first]);
  const count = (which: (n: number) => boolean): number => cells.filter(which).length;
  const { stuck, losable } = answer;
  return [
    reachSentence(world, answer),
    ...allFixtures(world).map(({ id }, i) => `${said(answer.fixtures[i]!).padStart(14)}  ${id}`),
    `cells: ${count((n) => n >= 0)} reached, ${count((n) => n === NEVER)} never, ${count((n) => n === UNDECIDED)} open`,
    ...(answer.goal === null ? [] : [`goal: ${said(answer.goal)}`]),
    ...(stuck === null
      ? []
      : [
          // Where not all was looked at, none that was found is no answer.
          losable === null && stuck.states === 0
            ? "stuck: open"
            : `stuck: ${stuck.states} states, ${stuck.classes.length} kinds`,
        ]),
    ...(losable === null
      ? []
      : [`can be lost for good: ${losable.map(({ fixture }) => fixture).join(", ") || "nothing"}`]),
    `on the grid at rest: ${answer.alignment.verdict}`,
    `${answer.states} states${answer.exhaustive ? "" : "; not all was looked at"}`,
  ];
}
