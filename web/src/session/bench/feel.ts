import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";
import type { Fixes } from "./fixes.ts";
import type { Feel } from "@keen-pebble/core/analyse";
import type { Rules } from "@keen-pebble/core/world";
import { measureFeel } from "@keen-pebble/core/analyse";
import { createStore } from "zustand/vanilla";

/** How the shown rule set feels now, and how it felt before the last edit of it; null until it was measured. */
export interface FeelState {
  readonly rules: Rules | null;
  readonly now: Feel | null;
  readonly before: Feel | null;
}

const NOTHING: FeelState = { rules: null, now: null, before: null };

/** The shown rule set's feel, measured anew as it changes. */
export class Feels {
  readonly store = createStore<FeelState>(() => NOTHING);
  /** A drag of a number is one edit: what is compared with stays while it lasts. */
  private lastStroke: string | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly fixes: Fixes,
  ) {}

  /** Measures whenever the shown rule set changes, some ms each time. Gives back what stops it. */
  readonly startFeel = (): (() => void) => {
    this.measure(null);
    const stops = [
      this.project.onProject((_project, _steps, stroke) => this.measure(stroke)),
      this.benchStore.subscribe(() => this.measure(null)),
    ];
    return () => {
      for (const stop of stops) stop();
      this.store.setState(NOTHING);
    };
  };

  private readonly measure = (stroke: string | null): void => {
    const rules = this.fixes.shownRules();
    const { project } = this.project.store.getState();
    const { rules: measured, now, before } = this.store.getState();
    if (rules === null || project === null || rules === measured) return;
    const feel = measureFeel(rules, project.world.tileSize);
    const sameEdit = stroke !== null && stroke === this.lastStroke;
    this.lastStroke = stroke;
    this.store.setState({ rules, now: feel, before: measured?.id === rules.id ? (sameEdit ? before : now) : null });
  };
}
