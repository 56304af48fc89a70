import { parseCheck } from "../checks/check.ts";
import { parseWhat, wholeNumber } from "../checks/what.ts";
import type { Refusal } from "../errors/refused-error.ts";
import { RefusedError } from "../errors/refused-error.ts";
import { keysFromText } from "../movement/keys.ts";
import { isFacing } from "../world/facing.ts";
import { ID_PATTERN, LIMITS } from "../world/limits.ts";
import type { InputLog, LogLine, Pointer, WithLine } from "./input-log.ts";
import { EMPTY_LOG, MOST_FRAMES, MOST_LINE_FRAMES } from "./input-log.ts";

/** The first line of every log. */
export const LOG_HEADER = "keen-pebble-inputs 1";

const HEADER_ORDER = ["world", "rules", "start", "with", "seed", "title", "tag", "note", "accept", "check"] as const;
type HeaderKey = (typeof HEADER_ORDER)[number];
const REPEATED: ReadonlySet<string> = new Set<HeaderKey>(["with", "tag", "note", "check"]);
const MOST_TEXT = 1000;
const MOST_LISTED = 20;

/** What a header line adds to the log, or a sentence that says what was expected. */
type HeaderResult = { readonly add: Partial<InputLog> } | { readonly fault: string };

/**
 * Reads an input log strictly (formats.md section 2).
 * @param text the whole file, UTF-8 decoded, lines ended by LF
 * @param name what to call it in the error, such as its file's name
 * @throws {RefusedError} with line and what was expected, for up to 20 faulty lines
 */
export function readLog(text: string, name = "the log"): InputLog {
  const refusals: Refusal[] = [];
  const refuse = (line: number, place: string, message: string) => {
    refusals.push({ place, line, column: null, message });
    if (refusals.length >= MOST_LISTED) throw new RefusedError(name, refusals);
  };
  if (text.length > LIMITS.fileBytes) throw new RefusedError(name, [{ place: "", line: null, column: null, message: `is larger than ${LIMITS.fileBytes} bytes` }]);

  const rows = text.split("\n");
  if (rows.at(-1) === "") rows.pop();
  if (rows[0] !== LOG_HEADER) refuse(1, "header", `expected \`${LOG_HEADER}\`, found ${quoted(rows[0] ?? "")}`);
  if (refusals.length > 0) throw new RefusedError(name, refusals);

  const dashes = rows.indexOf("---");
  if (dashes < 0) throw new RefusedError(name, [{ place: "header", line: rows.length, column: null, message: "expected a line `---` after the header" }]);
  let log: InputLog = EMPTY_LOG;
  let reached = 0;
  for (let i = 1; i < dashes; i++) {
    const row = rows[i]!;
    const [key, rest] = firstWord(row);
    const order = HEADER_ORDER.indexOf(key as HeaderKey);
    if (order < 0) refuse(i + 1, "header", `expected one of ${HEADER_ORDER.join(", ")} or \`---\`, found ${quoted(row)}`);
    else if (order < reached || (order === reached && i > 1 && firstWord(rows[i - 1]!)[0] === key && !REPEATED.has(key))) {
      refuse(i + 1, key, order < reached ? `must stand before \`${HEADER_ORDER[reached]}\`` : "stands twice");
    } else {
      reached = order;
      const result = readHeader(key as HeaderKey, rest, log);
      if ("fault" in result) refuse(i + 1, key, result.fault);
      else log = { ...log, ...result.add };
    }
  }

  const lines: LogLine[] = [];
  let frames = 0;
  for (let i = dashes + 1; i < rows.length; i++) {
    const result = readLine(rows[i]!);
    if ("fault" in result) {
      refuse(i + 1, "line", result.fault);
      continue;
    }
    lines.push(result.line);
    if (result.line.kind === "keys") frames += result.line.count;
    if (frames > MOST_FRAMES) {
      refuse(i + 1, "line", `a log has at most ${MOST_FRAMES} frames in all`);
      break;
    }
  }
  if (refusals.length > 0) throw new RefusedError(name, refusals);
  return { ...log, lines };
}

function quoted(text: string): string {
  return text === "" ? "nothing" : `"${text.length > 60 ? `${text.slice(0, 60)}...` : text}"`;
}

function firstWord(row: string): [string, string] {
  const blank = row.indexOf(" ");
  return blank < 0 ? [row, ""] : [row.slice(0, blank), row.slice(blank + 1)];
}

function readHeader(key: HeaderKey, rest: string, log: InputLog): HeaderResult {
  const words = rest.split(" ").filter((word) => word !== "");
  const [one = ""] = words;
  switch (key) {
    case "world":
    case "rules":
      return words.length === 1 && ID_PATTERN.test(one) ? { add: { [key]: one } } : { fault: `expected \`${key} ID\`` };
    case "start":
      return readStart(words);
    case "with": {
      const line = readWith(words);
      if (line === null) {
        return { fault: "expected `holds ITEM [N]`, `taken FIXTURE`, `open FIXTURE`, `circuit NAME on`, `lives N` or `respawn FIXTURE`" };
      }
      if (log.with.some((other) => withSubject(other) === withSubject(line))) return { fault: `\`${withSubject(line)}\` stands twice` };
      return { add: { with: [...log.with, line] } };
    }
    case "seed": {
      const seed = wholeNumber(one);
      return words.length === 1 && seed !== null ? { add: { seed } } : { fault: "expected `seed N`" };
    }
    case "title":
      return textFault(rest) ?? { add: { title: rest } };
    case "tag":
      return textFault(rest) ?? { add: { tags: [...log.tags, rest] } };
    case "note":
      return textFault(rest) ?? { add: { notes: [...log.notes, rest] } };
    case "accept":
      return words.length === 1 && /^[0-9a-f]{64}$/.test(one)
        ? { add: { accept: one } }
        : { fault: "expected a fingerprint of 64 digits 0 to f" };
    case "check": {
      const result = parseCheck(words);
      return "fault" in result ? result : { add: { checks: [...log.checks, result.check] } };
    }
  }
}

function textFault(text: string): { fault: string } | null {
  if (text === "") return { fault: "expected a text" };
  return text.length > MOST_TEXT || hasControls(text) ? { fault: `expected a text of at most ${MOST_TEXT} characters without control characters` } : null;
}

function hasControls(text: string): boolean {
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code < 32 || code === 127) return true;
  }
  return false;
}

function readStart(words: readonly string[]): HeaderResult {
  const [room = "", x = "", y = "", facing = ""] = words;
  const cx = wholeNumber(x);
  const cy = wholeNumber(y);
  if (words.length !== 4 || !ID_PATTERN.test(room) || cx === null || cy === null || !isFacing(facing)) {
    return { fault: "expected `start ROOM X Y FACING`" };
  }
  return { add: { start: { room, cell: [cx, cy], facing } } };
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
  if (keys < 0) return { fault: `expected keys: \`.\`, or letters of LRUDAB, each once and in that order; found ${quoted(words[1] ?? "")}` };
  let at = 2;
  let pointer: Pointer | null = null;
  if (words[at]?.startsWith("@")) {
    pointer = readPointer(words[at]!);
    if (pointer === null) return { fault: `expected a pointer \`@X,Y\`, found ${quoted(words[at]!)}` };
    at++;
  }
  if (at === words.length) return { line: { kind: "keys", count, keys, pointer, until: null } };
  if (words[at] !== "until") return { fault: `expected \`until WHAT\` or the line's end, found ${quoted(words.slice(at).join(" "))}` };
  const result = parseWhat(words.slice(at + 1));
  return "fault" in result ? { fault: `until: ${result.fault}` } : { line: { kind: "keys", count, keys, pointer, until: result.what } };
}

function readPointer(word: string): Pointer | null {
  const match = /^@(-?\d{1,9}(?:\.\d{1,9})?),(-?\d{1,9}(?:\.\d{1,9})?)$/.exec(word);
  return match ? { x: Number(match[1]), y: Number(match[2]) } : null;
}
