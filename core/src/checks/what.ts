import { ID_PATTERN } from "../world/limits.ts";
import type { Facing } from "../world/facing.ts";
import { isFacing } from "../world/facing.ts";
import type { EventName } from "../simulation/state.ts";
import { EVENT_NAMES, STATUS_NAMES } from "../simulation/state.ts";

/** Something that holds in a row of a run or does not: the WHAT of a check and of an `until` (formats.md section 2). */
export type What =
  | { readonly kind: "room"; readonly room: string }
  | { readonly kind: "cell"; readonly x: number; readonly y: number; readonly room: string | null }
  | { readonly kind: "on"; readonly fixture: string }
  | { readonly kind: "aligned"; readonly strictly: boolean }
  | { readonly kind: "still" }
  | { readonly kind: "facing"; readonly facing: Facing }
  | { readonly kind: "holds"; readonly item: string; /** null where none is written: one. */ readonly count: number | null }
  | { readonly kind: "taken"; readonly fixture: string }
  | { readonly kind: "open"; readonly fixture: string }
  | { readonly kind: "circuit"; readonly circuit: string; readonly on: boolean }
  | { readonly kind: "lives"; readonly lives: number }
  | { readonly kind: "status"; readonly status: (typeof STATUS_NAMES)[number] }
  | { readonly kind: "event"; readonly event: EventName; readonly subject: string | null }
  | { readonly kind: "overlap" }
  | { readonly kind: "outside" }
  | { readonly kind: "pixel"; readonly x: number; readonly y: number };

/** How each WHAT is written, for error messages and completion. */
export const WHAT_FORMS: Readonly<Record<What["kind"], string>> = {
  room: "room ID",
  cell: "cell X Y [in ROOM]",
  on: "on FIXTURE",
  aligned: "aligned [strictly]",
  still: "still",
  facing: "facing DIR",
  holds: "holds ITEM [N]",
  taken: "taken FIXTURE",
  open: "open FIXTURE",
  circuit: "circuit NAME on|off",
  lives: "lives N",
  status: "status won|lost|escaped|playing",
  event: "event NAME [FIXTURE or ROOM]",
  overlap: "overlap",
  outside: "outside",
  pixel: "pixel X Y",
};

/** A WHAT, or one sentence that says what was expected instead. */
export type WhatResult = { readonly what: What } | { readonly fault: string };

/** Reads the words of a WHAT, already parted at blanks. */
export function parseWhat(words: readonly string[]): WhatResult {
  const [kind, ...rest] = words;
  if (kind === undefined) return { fault: `expected one of: ${Object.keys(WHAT_FORMS).join(", ")}` };
  if (!Object.hasOwn(WHAT_FORMS, kind)) return { fault: `${quoted(kind)} is no check; expected one of: ${Object.keys(WHAT_FORMS).join(", ")}` };
  const what = parseRest(kind as What["kind"], rest);
  return what ? { what } : { fault: `expected \`${WHAT_FORMS[kind as What["kind"]]}\`, found ${quoted(words.join(" "))}` };
}

function quoted(text: string): string {
  return `"${text.length > 60 ? `${text.slice(0, 60)}...` : text}"`;
}

function parseRest(kind: What["kind"], rest: readonly string[]): What | null {
  const n = rest.length;
  const [a = "", b = "", c = "", d = ""] = rest;
  switch (kind) {
    case "room":
      return n === 1 && isId(a) ? { kind, room: a } : null;
    case "cell": {
      const x = wholeNumber(a);
      const y = wholeNumber(b);
      if (x === null || y === null || !(n === 2 || (n === 4 && c === "in" && isId(d)))) return null;
      return { kind, x, y, room: n === 4 ? d : null };
    }
    case "on":
    case "taken":
    case "open":
      return n === 1 && isId(a) ? { kind, fixture: a } : null;
    case "aligned":
      return n === 0 ? { kind, strictly: false } : n === 1 && a === "strictly" ? { kind, strictly: true } : null;
    case "still":
    case "overlap":
    case "outside":
      return n === 0 ? { kind } : null;
    case "facing":
      return n === 1 && isFacing(a) ? { kind, facing: a } : null;
    case "holds": {
      if (n === 1) return isId(a) ? { kind, item: a, count: null } : null;
      const count = wholeNumber(b);
      return n === 2 && isId(a) && count !== null && count >= 1 ? { kind, item: a, count } : null;
    }
    case "circuit":
      return n === 2 && isId(a) && (b === "on" || b === "off") ? { kind, circuit: a, on: b === "on" } : null;
    case "lives": {
      const lives = wholeNumber(a);
      return n === 1 && lives !== null ? { kind, lives } : null;
    }
    case "status": {
      const status = STATUS_NAMES.find((name) => name === a);
      return n === 1 && status ? { kind, status } : null;
    }
    case "event": {
      const event = EVENT_NAMES.find((name) => name === a);
      return event && (n === 1 || (n === 2 && isId(b))) ? { kind, event, subject: n === 2 ? b : null } : null;
    }
    case "pixel": {
      const x = decimal(a);
      const y = decimal(b);
      return n === 2 && x !== null && y !== null ? { kind, x, y } : null;
    }
  }
}

function isId(text: string): boolean {
  return ID_PATTERN.test(text);
}

/** A whole number of at most 9 digits, not negative, or null. */
export function wholeNumber(text: string): number | null {
  return /^\d{1,9}$/.test(text) ? Number(text) : null;
}

/** A decimal number, perhaps negative, or null. */
export function decimal(text: string): number | null {
  return /^-?\d{1,9}(\.\d{1,9})?$/.test(text) ? Number(text) : null;
}

/** The WHAT as text, words parted by single blanks. */
export function whatText(what: What): string {
  switch (what.kind) {
    case "room":
      return `room ${what.room}`;
    case "cell":
      return `cell ${what.x} ${what.y}${what.room === null ? "" : ` in ${what.room}`}`;
    case "on":
    case "taken":
    case "open":
      return `${what.kind} ${what.fixture}`;
    case "aligned":
      return what.strictly ? "aligned strictly" : "aligned";
    case "still":
    case "overlap":
    case "outside":
      return what.kind;
    case "facing":
      return `facing ${what.facing}`;
    case "holds":
      return what.count === null ? `holds ${what.item}` : `holds ${what.item} ${what.count}`;
    case "circuit":
      return `circuit ${what.circuit} ${what.on ? "on" : "off"}`;
    case "lives":
      return `lives ${what.lives}`;
    case "status":
      return `status ${what.status}`;
    case "event":
      return what.subject === null ? `event ${what.event}` : `event ${what.event} ${what.subject}`;
    case "pixel":
      return `pixel ${what.x} ${what.y}`;
  }
}

