/** What may be done where a free movement is blocked (semantics.md section 4.3). */
export type ResponseName = "contact" | "undo-axis" | "undo-both" | "snap" | "ahead";

/** A response by the settings of free movement that it asks; how it moves says its file in `movement/responses`. */
interface ResponseKind {
  readonly settings: readonly string[];
}

/** Every response, in the order in which they are offered. */
export const RESPONSES: Readonly<Record<ResponseName, ResponseKind>> = {
  contact: { settings: ["axisOrder", "nudge", "slopes"] },
  "undo-axis": { settings: ["axisOrder"] },
  "undo-both": { settings: [] },
  snap: { settings: ["axisOrder"] },
  ahead: { settings: ["axisOrder", "aheadPx"] },
};
