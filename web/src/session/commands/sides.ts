import type { Parts } from "../session.ts";
import type { SideName } from "../sides.ts";
import { SIDE_PANELS } from "../sides.ts";
import type { Command } from "./command.ts";
import { always } from "./command.ts";

/** Keys that fold away the panel on the left and the one on the right of an area's middle. */
export const SIDE_KEYS = { left: "<", right: ">" } as const;

/** Folds a panel away, and opens it again. */
export function sideCommand(session: Parts, name: SideName): Omit<Command, "onChange"> {
  const { at, label } = SIDE_PANELS[name];
  return {
    name: `Fold ${label} away, or open it`,
    keys: [SIDE_KEYS[at]],
    can: always,
    act: () => session.sides.toggle(name, window.innerWidth),
  };
}
