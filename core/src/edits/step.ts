import type { SettingValue } from "../world/setting.ts";
import type { Json } from "../world/parts.ts";

/** Some cells of a room change their tiles. The three lists go side by side; `cells` are indices, row by row. */
export interface SetCells {
  readonly kind: "set-cells";
  readonly room: string;
  readonly cells: readonly number[];
  readonly before: readonly number[];
  readonly after: readonly number[];
}

/** A setting of a rule set changes. `setting` is a path such as `glide.speed`. */
export interface ChangeRules {
  readonly kind: "change-rules";
  readonly rules: string;
  readonly setting: string;
  readonly before: SettingValue;
  readonly after: SettingValue;
}

/** A log is added; its text is an input log's. */
export interface AddLog {
  readonly kind: "add-log";
  readonly log: string;
  readonly text: string;
}

/** A log is taken away; its text is what was there. */
export interface RemoveLog {
  readonly kind: "remove-log";
  readonly log: string;
  readonly text: string;
}

/** A log's text changes. */
export interface ChangeLog {
  readonly kind: "change-log";
  readonly log: string;
  readonly before: string;
  readonly after: string;
}

/**
 * Parts of a world change together, each replaced whole: `name`, `tiles/brick`, `rooms/intake-hall/edges`, and the
 * order of a list, such as `tiles`. Null: it was not there, or shall not be.
 */
export interface ChangeParts {
  readonly kind: "change-parts";
  readonly parts: readonly { readonly part: string; readonly before: Json; readonly after: Json }[];
}

/**
 * One change of a project, as plain JSON. It carries what was there and what shall be there, so that inverting it
 * swaps the two and applying it where it does not fit is noticed (architecture.md, flow 2).
 */
export type EditStep = SetCells | ChangeRules | ChangeParts | AddLog | RemoveLog | ChangeLog;

/** The step that takes this one back. */
export function invert(step: EditStep): EditStep {
  switch (step.kind) {
    case "set-cells":
    case "change-rules":
    case "change-log":
      return { ...step, before: step.after, after: step.before } as EditStep;
    case "change-parts":
      return { ...step, parts: step.parts.map(({ part, before, after }) => ({ part, before: after, after: before })) };
    case "add-log":
      return { ...step, kind: "remove-log" };
    case "remove-log":
      return { ...step, kind: "add-log" };
  }
}

/** Whether a step changes the world itself, and with it the runs of all its logs; otherwise it changes the log it names. */
export function changesWorld(step: EditStep): step is SetCells | ChangeRules | ChangeParts {
  return step.kind === "set-cells" || step.kind === "change-rules" || step.kind === "change-parts";
}
