import { followCondition } from "../checks/condition.ts";
import type { Start, World } from "../world/world.ts";
import type { ReferenceChange } from "../checks/condition-kind.ts";
import type { Check } from "../checks/check.ts";
import { checkText, parseCheck } from "../checks/check.ts";
import { followReachCheck, parseReachCheck, reachCheckText } from "../checks/reach-check.ts";
import type { Project } from "./project.ts";
import type { WithLine } from "../simulation/run-start.ts";
import { readLog } from "../logs/read-log.ts";
import { writeLog } from "../logs/write-log.ts";

/** What becomes of what logs and laws name, and of where logs begin. */
export interface ProjectChange extends ReferenceChange {
  /** Another start, the world's (null), or the same. */
  readonly start: (start: Start) => Start | null;
}

/** Nothing is called otherwise and nothing moves: what a change does not say. */
export const NOTHING_CHANGES: ProjectChange = {
  room: (id) => id,
  fixture: (id) => id,
  cell: (_, cell) => cell,
  pixel: (at) => at,
  start: (start) => start,
};

/** A project whose logs and laws follow a change, and what could not follow, in words. */
export interface Followed {
  readonly project: Project;
  readonly fellAway: readonly string[];
}

/** Takes the checks, the `until` lines, the starts and what is set up of all logs, the world's laws and its reach checks, along with a change. */
export function follow(project: Project, change: ProjectChange): Followed {
  const fellAway: string[] = [];
  const logs = new Map<string, string>();
  for (const [id, text] of project.logs) logs.set(id, followedLog(id, text, change, project.world, fellAway));
  const laws = project.world.laws.flatMap((law) => {
    const parsed = parseCheck(law.split(" ").filter((word) => word !== ""));
    if (!("check" in parsed)) return [law];
    const changed = followCondition(parsed.check.what, change);
    if (changed === null) fellAway.push(`law ${law}`);
    return changed === null
      ? []
      : changed === parsed.check.what
        ? [law]
        : [checkText({ ...parsed.check, what: changed })];
  });
  const reachChecks = project.world.reachChecks.flatMap((text) => {
    const check = parseReachCheck(text);
    const changed = check === null ? null : followReachCheck(check, change);
    if (changed === null) fellAway.push(`reach check ${text}`);
    return changed === null ? [] : [changed === check ? text : reachCheckText(changed)];
  });
  const world: World = { ...project.world, laws, reachChecks };
  return { project: { world, logs }, fellAway };
}

function followedLog(id: string, text: string, change: ProjectChange, world: World, fellAway: string[]): string {
  const log = readLog(text);
  const checks = log.checks.flatMap((check): Check[] => {
    const what = followCondition(check.what, change);
    if (what === null) fellAway.push(`${id}: check ${checkText(check)}`);
    return what === null ? [] : what === check.what ? [check] : [{ ...check, what }];
  });
  const lines = log.lines.map((line) => {
    if (line.kind !== "keys" || line.until === null) return line;
    const until = followCondition(line.until, change);
    // Without its end the line would press on for all its frames: it presses none that nobody meant, and says so.
    if (until === null) fellAway.push(`${id}: the end of an until line`);
    return until === line.until ? line : { ...line, until };
  });
  const begins = log.start === null ? null : change.start(log.start);
  if (begins === null && log.start !== null) fellAway.push(`${id}: its start, now the world's`);
  const setUp = log.with.flatMap((line): WithLine[] => {
    const changed = followedWith(line, change, world);
    if (changed === null) fellAway.push(`${id}: with ${line.kind}`);
    return changed === null ? [] : [changed];
  });
  const same =
    setUp.length === log.with.length &&
    setUp.every((line, i) => line === log.with[i]) &&
    begins === log.start &&
    checks.length === log.checks.length &&
    checks.every((check, i) => check === log.checks[i]) &&
    lines.every((line, i) => line === log.lines[i]);
  return same ? text : writeLog({ ...log, start: begins, with: setUp, checks, lines });
}

/** What a log sets up, under the names of the changed world, which is given; null where what it was about is gone. */
function followedWith(line: WithLine, change: ReferenceChange, world: World): WithLine | null {
  if (line.kind === "actor") {
    const actor = change.fixture(line.actor);
    const room = world.rooms.find(({ actors }) => actors.some(({ id }) => id === actor));
    if (actor === null || room === undefined) return null;
    const [x, y] = change.cell(room.id, line.cell);
    if (x < 0 || y < 0 || x >= room.width || y >= room.height) return null;
    const same = actor === line.actor && x === line.cell[0] && y === line.cell[1];
    return same ? line : { ...line, actor, cell: [x, y] };
  }
  if (!("fixture" in line)) return line;
  const fixture = change.fixture(line.fixture);
  return fixture === null ? null : fixture === line.fixture ? line : { ...line, fixture };
}
