import { checkText } from "../checks/check.ts";
import { conditionText } from "../checks/condition.ts";
import { keysText } from "../world/keys.ts";
import type { InputLog, LogLine } from "./input-log.ts";
import type { WithLine } from "../simulation/run-start.ts";
import { MOST_LINE_FRAMES } from "./input-log.ts";
import { LOG_HEADER } from "./read-log.ts";

/** The log as a file's text. Neighbouring lines that hold the same are merged; reading it gives the same walk. */
export function writeLog(log: InputLog): string {
  const rows = [LOG_HEADER];
  if (log.world !== null) rows.push(`world ${log.world}`);
  if (log.rules !== null) rows.push(`rules ${log.rules}`);
  if (log.start !== null)
    rows.push(`start ${log.start.room} ${log.start.cell[0]} ${log.start.cell[1]} ${log.start.facing}`);
  for (const line of log.with) rows.push(`with ${withText(line)}`);
  if (log.seed !== null) rows.push(`seed ${log.seed}`);
  if (log.title !== null) rows.push(`title ${log.title}`);
  for (const tag of log.tags) rows.push(`tag ${tag}`);
  for (const note of log.notes) rows.push(`note ${note}`);
  if (log.accept !== null) rows.push(`accept ${log.accept}`);
  for (const check of log.checks) rows.push(`check ${checkText(check)}`);
  rows.push("---");
  for (const line of mergeLines(log.lines)) rows.push(lineText(line));
  return `${rows.join("\n")}\n`;
}

/** Merges neighbouring lines that hold the same buttons and pointer; `until` lines and comments stay as they are. */
export function mergeLines(lines: readonly LogLine[]): LogLine[] {
  const merged: LogLine[] = [];
  for (const line of lines) {
    const last = merged.at(-1);
    if (
      line.kind === "keys" &&
      last?.kind === "keys" &&
      holdsTheSame(last, line) &&
      last.count + line.count <= MOST_LINE_FRAMES
    ) {
      merged[merged.length - 1] = { ...last, count: last.count + line.count };
    } else merged.push(line);
  }
  return merged;
}

type KeysLine = Extract<LogLine, { kind: "keys" }>;

function holdsTheSame(a: KeysLine, b: KeysLine): boolean {
  return (
    a.until === null &&
    b.until === null &&
    a.keys === b.keys &&
    a.pointer?.x === b.pointer?.x &&
    a.pointer?.y === b.pointer?.y
  );
}

function withText(line: WithLine): string {
  switch (line.kind) {
    case "holds":
      return line.count === 1 ? `holds ${line.item}` : `holds ${line.item} ${line.count}`;
    case "taken":
    case "open":
    case "respawn":
      return `${line.kind} ${line.fixture}`;
    case "circuit":
      return `circuit ${line.circuit} on`;
    case "lives":
      return `lives ${line.lives}`;
    case "actor":
      return `actor ${line.actor} ${line.cell.join(" ")}${line.facing === null ? "" : ` ${line.facing}`}`;
  }
}

function lineText(line: LogLine): string {
  if (line.kind === "comment") return `#${line.text}`;
  const pointer = line.pointer === null ? "" : ` @${line.pointer.x},${line.pointer.y}`;
  const until = line.until === null ? "" : ` until ${conditionText(line.until)}`;
  return `${line.count} ${keysText(line.keys)}${pointer}${until}`;
}
