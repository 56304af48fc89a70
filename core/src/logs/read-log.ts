import { quoted } from "../base/quoted.ts";
import { parseCheck } from "../checks/check.ts";
import { parseCondition } from "../checks/condition.ts";
import { wholeNumber } from "../checks/words.ts";
import type { Refusal } from "../base/refused-error.ts";
import { RefusedError } from "../base/refused-error.ts";
import { plainText } from "../base/plain-text.ts";
import { keysFromText } from "../world/keys.ts";
import { isFacing } from "../world/facing.ts";
import { ID_PATTERN, LIMITS } from "../world/limits.ts";
import type { Start } from "../world/world.ts";
import type { InputLog, LogLine, Pointer } from "./input-log.ts";
import type { WithLine } from "../simulation/run-start.ts";
import { EMPTY_LOG, MOST_CHECKED, MOST_FRAMES, MOST_LINES, MOST_LINE_FRAMES } from "./input-log.ts";

/** The first line of every log. */
export const LOG_HEADER = "keen-pebble-inputs 1";

const HEADER_ORDER = ["world", "rules", "start", "with", "seed", "title", "tag", "note", "accept", "check"] as const;
type HeaderKey = (typeof HEADER_ORDER)[number];
const REPEATED: ReadonlySet<string> = new Set<HeaderKey>(["with", "tag", "note", "check"]);
const MOST_TEXT = 1000;
const MOST_LISTED = 20;

/** A log whose header is being read. */
type Growing = { -readonly [K in keyof InputLog]: InputLog[K] extends readonly (infer T)[] ? T[] : InputLog[K] };

/**
 * Reads an input log strictly (formats.md section 2).
 * @param file its whole text, UTF-8 decoded
 * @param name what to call it in the error, such as its file's name
 * @throws {RefusedError} with line and what was expected, for up to 20 faulty lines
 */
export function readLog(file: string, name = "the log"): InputLog {
  const text = plainText(file);
  const refusals: Refusal[] = [];
  const refuse = (line: number, place: string, message: string) => {
    refusals.push({ place, line, column: null, message });
    if (refusals.length >= MOST_LISTED) throw new RefusedError(name, refusals);
  };
  if (text.length > LIMITS.fileBytes)
    throw new RefusedError(name, [
      { place: "", line: null, column: null, message: `is larger than ${LIMITS.fileBytes} bytes` },
    ]);

  // No database takes it, and no editor shows it.
  const nul = text.indexOf("\0");
  if (nul >= 0)
    throw new RefusedError(name, [
      { place: "", line: linesIn(text, nul) + 1, column: null, message: "holds a NUL character" },
    ]);

  if (linesIn(text, text.length) > MOST_LINES)
    throw new RefusedError(name, [
      { place: "", line: MOST_LINES + 1, column: null, message: `a log has at most ${MOST_LINES} lines` },
    ]);
  const rows = text.split("\n");
  if (rows.at(-1) === "") rows.pop();
  if (rows[0] !== LOG_HEADER) refuse(1, "header", `expected \`${LOG_HEADER}\`, found ${quoted(rows[0] ?? "")}`);
  if (refusals.length > 0) throw new RefusedError(name, refusals);

  const dashes = rows.indexOf("---");
  if (dashes < 0)
    throw new RefusedError(name, [
      { place: "header", line: rows.length, column: null, message: "expected a line `---` after the header" },
    ]);
  const log: Growing = { ...EMPTY_LOG, with: [], tags: [], notes: [], checks: [], lines: [] };
  readHeaderLines(rows, dashes, log, refuse);
  const frames = readBody(rows, dashes + 1, log, refuse);
  if (frames * log.checks.length > MOST_CHECKED)
    refuse(
      dashes + 1,
      "check",
      `${log.checks.length} checks over ${frames} frames are too many: frames times checks may be at most ${MOST_CHECKED}`,
    );
  if (refusals.length > 0) throw new RefusedError(name, refusals);
  return log;
}

type Refuse = (line: number, place: string, message: string) => void;

/** Reads the lines between the first one and `---` into the log. */
function readHeaderLines(rows: readonly string[], dashes: number, log: Growing, refuse: Refuse): void {
  const subjects = new Set<string>();
  let reached = 0;
  for (let i = 1; i < dashes; i++) {
    const row = rows[i]!;
    const [key, rest] = firstWord(row);
    const order = HEADER_ORDER.indexOf(key as HeaderKey);
    if (order < 0)
      refuse(i + 1, "header", `expected one of ${HEADER_ORDER.join(", ")} or \`---\`, found ${quoted(row)}`);
    else if (
      order < reached ||
      (order === reached && i > 1 && firstWord(rows[i - 1]!)[0] === key && !REPEATED.has(key))
    ) {
      refuse(i + 1, key, order < reached ? `must stand before \`${HEADER_ORDER[reached]}\`` : "stands twice");
    } else {
      reached = order;
      const fault = readHeader(key as HeaderKey, rest, log, subjects);
      if (fault !== null) refuse(i + 1, key, fault);
    }
  }
}

/** Reads the lines from one on into the log; gives the frames that they may have in all. */
function readBody(rows: readonly string[], from: number, log: Growing, refuse: Refuse): number {
  let frames = 0;
  for (let i = from; i < rows.length; i++) {
    const result = readLine(rows[i]!);
    if ("fault" in result) {
      refuse(i + 1, "line", result.fault);
      continue;
    }
    log.lines.push(result.line);
    if (result.line.kind === "keys") frames += result.line.count;
    if (frames > MOST_FRAMES) {
      refuse(i + 1, "line", `a log has at most ${MOST_FRAMES} frames in all`);
      break;
    }
  }
  return frames;
}

/** Ends of lines before a place in the text. */
function linesIn(text: string, before: number): number {
  let lines = 0;
  for (let at = text.indexOf("\n"); at >= 0 && at < before; at = text.indexOf("\n", at + 1)) lines++;
  return lines;
}

function firstWord(row: string): [string, string] {
  const blank = row.indexOf(" ");
  return blank < 0 ? [row, ""] : [row.slice(0, blank), row.slice(blank + 1)];
}

/** Puts what a header line says into the log, or says what was expected. `subjects` is what `with` lines have named so far. */
function readHeader(key: HeaderKey, rest: string, log: Growing, subjects: Set<string>): string | null {
  const words = rest.split(" ").filter((word) => word !== "");
  const [one = ""] = words;
  switch (key) {
    case "world":
    case "rules":
      if (words.length !== 1 || !ID_PATTERN.test(one)) return `expected \`${key} ID\``;
      log[key] = one;
      return null;
    case "start":
      log.start = readStart(words);
      return log.start === null ? "expected `start ROOM X Y FACING`" : null;
    case "with": {
      const line = readWith(words);
      if (line === null)
        return "expected `holds ITEM [N]`, `taken FIXTURE`, `open FIXTURE`, `circuit NAME on`, `lives N`, `respawn FIXTURE` or `actor ID X Y [FACING]`";
      const subject = withSubject(line);
      if (subjects.has(subject)) return `\`${subject}\` stands twice`;
      subjects.add(subject);
      log.with.push(line);
      return null;
    }
    case "seed":
      log.seed = words.length === 1 ? wholeNumber(one, LIMITS.seed) : null;
      return log.seed === null ? `expected \`seed N\`, 0 to ${LIMITS.seed}` : null;
    case "title":
      log.title = rest;
      return textFault(rest);
    case "tag":
      log.tags.push(rest);
      return textFault(rest);
    case "note":
      log.notes.push(rest);
      return textFault(rest);
    case "accept":
      if (words.length !== 1 || !/^[0-9a-f]{64}$/.test(one)) return "expected a fingerprint of 64 digits 0 to f";
      log.accept = one;
      return null;
    case "check": {
      const result = parseCheck(words);
      if ("fault" in result) return result.fault;
      log.checks.push(result.check);
      return null;
    }
  }
}

function textFault(text: string): string | null {
  if (text === "") return "expected a text";
  return text.length > MOST_TEXT || hasControls(text)
    ? `expected a text of at most ${MOST_TEXT} characters without control characters`
    : null;
}

function hasControls(text: string): boolean {
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code < 32 || code === 127) return true;
  }
  return false;
}

function readStart(words: readonly string[]): Start | null {
  const [room = "", x = "", y = "", facing = ""] = words;
  const cx = wholeNumber(x);
  const cy = wholeNumber(y);
  if (words.length !== 4 || !ID_PATTERN.test(room) || cx === null || cy === null || !isFacing(facing)) return null;
  return { room, cell: [cx, cy], facing };
}

function readWith(words: readonly string[]): WithLine | null {
  const [kind, id = "", more] = words;
  const n = words.length;
  if (kind === "lives") {
    const lives = wholeNumber(id);
    return n === 2 && lives !== null && lives >= LIMITS.lives[0] && lives <= LIMITS.lives[1] ? { kind, lives } : null;
  }
  if (!ID_PATTERN.test(id)) return null;
  switch (kind) {
    case "holds": {
      const count = more === undefined ? 1 : wholeNumber(more);
      return n <= 3 && count !== null && count >= 1 ? { kind, item: id, count } : null;
    }
    case "taken":
    case "open":
    case "respawn":
      return n === 2 ? { kind, fixture: id } : null;
    case "actor": {
      const [, , x = "", y = "", looks] = words;
      const [cx, cy] = [wholeNumber(x), wholeNumber(y)];
      if (n < 4 || n > 5 || cx === null || cy === null || (looks !== undefined && !isFacing(looks))) return null;
      return { kind, actor: id, cell: [cx, cy], facing: looks ?? null };
    }
    case "circuit":
      return n === 3 && more === "on" ? { kind, circuit: id } : null;
    default:
      return null;
  }
}

/** What a second `with` line must not name again. */
function withSubject(line: WithLine): string {
  switch (line.kind) {
    case "holds":
      return `holds ${line.item}`;
    case "taken":
    case "open":
      return `${line.kind} ${line.fixture}`;
    case "circuit":
      return `circuit ${line.circuit}`;
    case "actor":
      return `actor ${line.actor}`;
    case "lives":
    case "respawn":
      return line.kind;
  }
}

function readLine(row: string): { readonly line: LogLine } | { readonly fault: string } {
  if (row.startsWith("#")) return { line: { kind: "comment", text: row.slice(1) } };
  const words = row.split(" ").filter((word) => word !== "");
  const count = wholeNumber(words[0] ?? "");
  if (count === null || count < 1 || count > MOST_LINE_FRAMES) {
    return { fault: `expected \`COUNT KEYS\` with a count from 1 to ${MOST_LINE_FRAMES}, found ${quoted(row)}` };
  }
  const keys = keysFromText(words[1] ?? "");
  if (keys < 0)
    return {
      fault: `expected keys: \`.\`, or letters of LRUDAB, each once and in that order; found ${quoted(words[1] ?? "")}`,
    };
  let at = 2;
  let pointer: Pointer | null = null;
  if (words[at]?.startsWith("@")) {
    pointer = readPointer(words[at]!);
    if (pointer === null) return { fault: `expected a pointer \`@X,Y\`, found ${quoted(words[at]!)}` };
    at++;
  }
  if (at === words.length) return { line: { kind: "keys", count, keys, pointer, until: null } };
  if (words[at] !== "until")
    return { fault: `expected \`until WHAT\` or the line's end, found ${quoted(words.slice(at).join(" "))}` };
  const result = parseCondition(words.slice(at + 1));
  return "fault" in result
    ? { fault: `until: ${result.fault}` }
    : { line: { kind: "keys", count, keys, pointer, until: result.condition } };
}

function readPointer(word: string): Pointer | null {
  const match = /^@(-?\d{1,9}(?:\.\d{1,9})?),(-?\d{1,9}(?:\.\d{1,9})?)$/.exec(word);
  return match ? { x: Number(match[1]), y: Number(match[2]) } : null;
}
