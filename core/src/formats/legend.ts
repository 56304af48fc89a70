import { quoted } from "../base/quoted.ts";
import type { Fields, Field } from "../world/field.ts";
import { fieldsOf, FIXTURE_KINDS } from "../world/fixtures.ts";
import type { FixtureKindName } from "../world/fixtures.ts";
import { ID_PATTERN } from "../world/limits.ts";

/** How an id ends that stands for as many as one likes, numbered in reading order: `key-#`. */
export const NUMBERED = "#";

/** `CHAR = KIND [ID] [on TILE] [KEY=VALUE ...]` (formats.md section 4). */
export interface LegendLine {
  readonly character: string;
  readonly kind: "tile" | "start" | FixtureKindName;
  /** Empty for `start`, and where none is written; of a fixture it may end in `NUMBERED`. */
  readonly id: string;
  readonly on: string | null;
  /** Values by their keys, dots taken apart. */
  readonly values: Readonly<Record<string, unknown>>;
}

/** How the values of all kinds of fixtures are written, by their keys with dots. */
const VALUE_TYPES: ReadonlyMap<string, Field["type"] | "cell"> = new Map(
  FIXTURE_KINDS.flatMap((kind) => typesOf(fieldsOf(kind), "")),
);

function typesOf(fields: Fields, before: string): [string, Field["type"] | "cell"][] {
  return Object.entries(fields).flatMap(([name, field]): [string, Field["type"] | "cell"][] => {
    const key = `${before}${name}`;
    if (field.type === "place") return [[`${key}.cell`, "cell"]];
    return field.type === "kinds"
      ? Object.values(field.kinds).flatMap((inner) => typesOf(inner, `${key}.`))
      : [[key, field.type]];
  });
}

/** Reads a legend line; a fault says what was expected, and at which character of the line. */
export function readLegendLine(
  line: string,
): { readonly legend: LegendLine } | { readonly fault: string; readonly column: number } {
  const [character = ""] = line;
  const rest = line.slice(character.length);
  const head = /^ = ([a-z]+)(?= |$)/.exec(rest);
  if (!head) return { fault: "expected `CHARACTER = KIND ...`", column: 1 };
  const kind = head[1]!;
  if (kind !== "tile" && kind !== "start" && !(FIXTURE_KINDS as readonly string[]).includes(kind)) {
    return {
      fault: `expected a kind out of tile, start, ${FIXTURE_KINDS.join(", ")}, found "${kind}"`,
      column: [...character].length + 4,
    };
  }
  const words = wordsOf(rest.slice(head[0].length), character.length + head[0].length);
  let id = "";
  if (kind !== "start") {
    const [word] = words;
    // Without one it gets an id of its own.
    if (word !== undefined && word.text !== "on" && !word.text.includes("=")) {
      if (!isId(word.text, kind))
        return {
          fault: `expected an id, \`on TILE\` or \`KEY=VALUE\` after \`${kind}\`, found "${word.text}"`,
          column: word.at + 1,
        };
      id = word.text;
      words.shift();
    }
  }
  let on: string | null = null;
  if (words[0]?.text === "on") {
    const { at } = words.shift()!;
    const word = words.shift();
    if (!word || !ID_PATTERN.test(word.text))
      return { fault: "expected a tile's id after `on`", column: (word?.at ?? at) + 1 };
    on = word.text;
  }
  const values: Record<string, unknown> = {};
  for (const { text, at } of words) {
    const equals = text.indexOf("=");
    const key = text.slice(0, Math.max(equals, 0));
    if (!/^[A-Za-z]+(\.[A-Za-z]+)?$/.test(key))
      return { fault: `expected \`KEY=VALUE\`, found ${quoted(text)}`, column: at + 1 };
    const value = valueOf(kind, key, text.slice(equals + 1));
    if (value === undefined)
      return { fault: `${key}: "${text.slice(equals + 1, equals + 41)}" is no value for it`, column: at + 1 };
    const [first, second] = key.split(".") as [string, string | undefined];
    // Own ones only: every object has a `constructor`.
    const group = second === undefined ? values : Object.hasOwn(values, first) ? values[first] : (values[first] = {});
    if (typeof group !== "object" || group === null || Object.hasOwn(group, second ?? first))
      return { fault: `${key} stands twice`, column: at + 1 };
    (group as Record<string, unknown>)[second ?? first] = value;
  }
  return { legend: { character, kind: kind as LegendLine["kind"], id, on, values } };
}

/** Whether a word names a tile or a fixture; of fixtures also any number of them. */
function isId(word: string, kind: string): boolean {
  return ID_PATTERN.test(kind !== "tile" && word.endsWith(NUMBERED) ? `${word.slice(0, -1)}1` : word);
}

/** Words parted by blanks; a value in quotation marks, as JSON has them, may hold blanks. */
function wordsOf(text: string, from: number): { text: string; at: number }[] {
  return [...text.matchAll(/[^\s="]+="(?:[^"\\]|\\.)*"|\S+/g)].map((match) => ({
    text: match[0],
    at: from + match.index,
  }));
}

function valueOf(kind: string, key: string, text: string): unknown {
  if (text.startsWith('"')) {
    try {
      return JSON.parse(text) as unknown;
    } catch {
      return undefined;
    }
  }
  if (kind === "tile" && key === "flags") return text === "" ? [] : text.split(",");
  const type = VALUE_TYPES.get(key);
  if (type === "whole") return /^\d{1,6}$/.test(text) ? Number(text) : undefined;
  if (type === "switch") return text === "true" ? true : text === "false" ? false : undefined;
  if (type === "cell" || type === "size")
    return /^\d{1,3},\d{1,3}$/.test(text) ? text.split(",").map(Number) : undefined;
  return text;
}

/** A legend line as text; values that are what they would be anyway are left out by the caller. */
export function legendText({ character, kind, id, on, values }: LegendLine): string {
  const words = [`${character} = ${kind}`];
  if (id !== "") words.push(id);
  if (on !== null) words.push(`on ${on}`);
  const add = (key: string, value: unknown): void => {
    if (Array.isArray(value)) words.push(`${key}=${value.join(",")}`);
    else if (value !== null && typeof value === "object")
      for (const [name, inner] of Object.entries(value)) add(`${key}.${name}`, inner);
    else words.push(`${key}=${plain(value as string | number | boolean)}`);
  };
  for (const [key, value] of Object.entries(values)) add(key, value);
  return words.join(" ");
}

function plain(value: string | number | boolean): string {
  return typeof value === "string" && !/^[^\s"]+$/.test(value) ? JSON.stringify(value) : String(value);
}
