import { LIMITS } from "../world/limits.ts";
import type { Pair } from "../world/world.ts";
import type { ReferenceChange } from "./condition-kind.ts";

/** A check about all play there could be (formats.md section 1, `reachChecks`). */
export type ReachCheck =
  | { readonly kind: "fixture"; readonly fixture: string; readonly reachable: boolean }
  | { readonly kind: "cell"; readonly room: string; readonly cell: Pair; readonly reachable: boolean }
  | { readonly kind: "all"; readonly item: string }
  | { readonly kind: "never lost"; readonly item: string }
  | { readonly kind: "winnable" }
  | { readonly kind: "never stuck" }
  | { readonly kind: "aligned" };

/** What a reach check comes to: open does not hold. */
export interface ReachRuling {
  readonly check: string;
  readonly verdict: "pass" | "fail" | "open";
  /** What is so instead; null where it passes. */
  readonly seen: string | null;
}

/** The wordings that there are, for messages and completion. */
export const REACH_WORDINGS = [
  "reachable FIXTURE",
  "reachable cell X Y in ROOM",
  "reachable all ITEM",
  "unreachable FIXTURE",
  "unreachable cell X Y in ROOM",
  "winnable",
  "never stuck",
  "never lost ITEM",
  "aligned",
] as const;

const ID = /^[a-z0-9-]{1,40}$/;
const NUMBER = /^(0|[1-9]\d{0,3})$/;

/** Reads a reach check; null where it is none. Whether the world has what it names is not looked at. */
export function parseReachCheck(text: string): ReachCheck | null {
  const words = text.split(" ").filter((word) => word !== "");
  const [first, second = "", ...more] = words;
  switch (first) {
    case "winnable":
    case "aligned":
      return words.length === 1 ? { kind: first } : null;
    case "never":
      if (second === "stuck" && more.length === 0) return { kind: "never stuck" };
      return second === "lost" && more.length === 1 && ID.test(more[0]!)
        ? { kind: "never lost", item: more[0]! }
        : null;
    case "reachable":
    case "unreachable": {
      const reachable = first === "reachable";
      if (more.length === 0) return ID.test(second) ? { kind: "fixture", fixture: second, reachable } : null;
      if (second === "all" && reachable && more.length === 1)
        return ID.test(more[0]!) ? { kind: "all", item: more[0]! } : null;
      const [x = "", y = "", word, room = ""] = more;
      const isCell = second === "cell" && more.length === 4 && word === "in" && ID.test(room);
      return isCell && isColumn(x) && isColumn(y)
        ? { kind: "cell", room, cell: [Number(x), Number(y)], reachable }
        : null;
    }
    default:
      return null;
  }
}

const isColumn = (text: string): boolean => NUMBER.test(text) && Number(text) < LIMITS.roomSide[1];

/** The check as a world file has it. */
export function reachCheckText(check: ReachCheck): string {
  switch (check.kind) {
    case "fixture":
      return `${check.reachable ? "reachable" : "unreachable"} ${check.fixture}`;
    case "cell":
      return `${check.reachable ? "reachable" : "unreachable"} cell ${check.cell.join(" ")} in ${check.room}`;
    case "all":
      return `reachable all ${check.item}`;
    case "never lost":
      return `never lost ${check.item}`;
    case "winnable":
    case "never stuck":
    case "aligned":
      return check.kind;
  }
}

/** The check after what it names has changed; the very same where nothing has, null where what it was about is gone. */
export function followReachCheck(check: ReachCheck, change: ReferenceChange): ReachCheck | null {
  switch (check.kind) {
    case "fixture": {
      const fixture = change.fixture(check.fixture);
      return fixture === null ? null : fixture === check.fixture ? check : { ...check, fixture };
    }
    case "cell": {
      const room = change.room(check.room);
      const cell = change.cell(check.room, check.cell);
      // A cell that is west or north of the room now cannot be written.
      if (room === null || cell[0] < 0 || cell[1] < 0) return null;
      return room === check.room && cell[0] === check.cell[0] && cell[1] === check.cell[1]
        ? check
        : { ...check, room, cell };
    }
    case "all":
    case "never lost":
    case "winnable":
    case "never stuck":
    case "aligned":
      return check;
  }
}
