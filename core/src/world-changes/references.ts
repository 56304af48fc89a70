import type { Check } from "../checks/check.ts";
import { checkText, parseCheck } from "../checks/check.ts";
import type { What } from "../checks/what.ts";
import type { Project } from "../edits/project.ts";
import type { InputLog, WithLine } from "../logs/input-log.ts";
import { readLog } from "../logs/read-log.ts";
import { writeLog } from "../logs/write-log.ts";
import type { World } from "../world/world.ts";

/** What becomes of a WHAT: another one, or null where it has lost what it was about. */
export type WhatChange = (what: What) => What | null;

/** What becomes of a log's start: another one, the world's (null), or the same. */
export type StartChange = (start: NonNullable<InputLog["start"]>) => InputLog["start"];

/** What becomes of what a log sets up: another line, or null where it has lost what it was about. */
export type WithChange = (line: WithLine) => WithLine | null;

/** A project whose logs and laws follow a change, and what could not follow, in words. */
export interface Followed {
  readonly project: Project;
  readonly fellAway: readonly string[];
}

/** Takes the checks, the `until` lines, the starts and what is set up of all logs, and the world's laws, along with a change. */
export function follow(project: Project, what: WhatChange, start: StartChange, line: WithChange = (given) => given): Followed {
  const fellAway: string[] = [];
  const logs = new Map<string, string>();
  for (const [id, text] of project.logs) logs.set(id, followedLog(id, text, what, start, line, fellAway));
  const laws = project.world.laws.flatMap((law) => {
    const parsed = parseCheck(law.split(" ").filter((word) => word !== ""));
    if (!("check" in parsed)) return [law];
    const changed = what(parsed.check.what);
    if (changed === null) fellAway.push(`law ${law}`);
    return changed === null ? [] : changed === parsed.check.what ? [law] : [checkText({ ...parsed.check, what: changed })];
  });
  const world: World = { ...project.world, laws };
  return { project: { world, logs }, fellAway };
}

function followedLog(id: string, text: string, change: WhatChange, start: StartChange, withChange: WithChange, fellAway: string[]): string {
  const log = readLog(text);
  const checks = log.checks.flatMap((check): Check[] => {
    const what = change(check.what);
    if (what === null) fellAway.push(`${id}: check ${checkText(check)}`);
    return what === null ? [] : what === check.what ? [check] : [{ ...check, what }];
  });
  const lines = log.lines.map((line) => {
    if (line.kind !== "keys" || line.until === null) return line;
    const until = change(line.until);
    // Without its end the line would press on for all its frames: it presses none that nobody meant, and says so.
    if (until === null) fellAway.push(`${id}: the end of an until line`);
    return until === line.until ? line : { ...line, until };
  });
  const begins = log.start === null ? null : start(log.start);
  if (begins === null && log.start !== null) fellAway.push(`${id}: its start, now the world's`);
  const setUp = log.with.flatMap((line): WithLine[] => {
    const changed = withChange(line);
    if (changed === null) fellAway.push(`${id}: with ${line.kind}`);
    return changed === null ? [] : [changed];
  });
  const same = setUp.length === log.with.length && setUp.every((line, i) => line === log.with[i]) && begins === log.start && checks.length === log.checks.length && checks.every((check, i) => check === log.checks[i]) && lines.every((line, i) => line === log.lines[i]);
  return same ? text : writeLog({ ...log, start: begins, with: setUp, checks, lines });
}
