import type { Feel } from "@keen-pebble/core/analyse";
import type { Rules } from "@keen-pebble/core/world";
import { measureFeel } from "@keen-pebble/core/analyse";
import { createStore } from "zustand/vanilla";
import { benchStore } from "./bench-store.ts";
import { shownRules } from "./fixes.ts";
import { onProject, projectStore } from "../project/project.ts";

/** How the shown rule set feels now, and how it felt before the last edit of it; null until it was measured. */
export interface FeelState {
  readonly rules: Rules | null;
  readonly now: Feel | null;
  readonly before: Feel | null;
}

const NOTHING: FeelState = { rules: null, now: null, before: null };

export const feelStore = createStore<FeelState>(() => NOTHING);

/** A drag of a number is one edit: what is compared with stays while it lasts. */
let lastStroke: string | null = null;

/** Measures whenever the shown rule set changes, some ms each time. Gives back what stops it. */
export function startFeel(): () => void {
  measure(null);
  const stops = [onProject((_project, _steps, stroke) => measure(stroke)), benchStore.subscribe(() => measure(null))];
  return () => {
    for (const stop of stops) stop();
    feelStore.setState(NOTHING);
  };
}

function measure(stroke: string | null): void {
  const rules = shownRules();
  const { project } = projectStore.getState();
  const { rules: measured, now, before } = feelStore.getState();
  if (rules === null || project === null || rules === measured) return;
  const feel = measureFeel(rules, project.world.tileSize);
  const sameEdit = stroke !== null && stroke === lastStroke;
  lastStroke = stroke;
  feelStore.setState({ rules, now: feel, before: measured?.id === rules.id ? (sameEdit ? before : now) : null });
}
