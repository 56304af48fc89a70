import { createStore } from "zustand/vanilla";
import { keepSetting, keptSetting } from "../project/local-settings.ts";
import type { ProjectSession } from "../project/project.ts";
import type { BenchState, BenchStore } from "./bench-store.ts";

/** What a newcomer does first, in order: each is said in one line until it is done. */
export const FIRST_STEPS = ["walk", "keep", "change", "look"] as const;
export type FirstStep = (typeof FIRST_STEPS)[number];

const KEPT = "first-minute";
const DONE = "done";

/** The first minute: one quiet line at a time, where it is needed; gone for good once all of it is done. */
export class FirstMinute {
  /** What is to be done next; null once all is done, or nobody wants to be told. */
  readonly store = createStore<{ readonly step: FirstStep | null }>(() => ({ step: keptStep() }));

  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
  ) {}

  /** Follows what is done. Gives back what stops it. */
  readonly startFirstMinute = (): (() => void) => {
    const stopBench = this.benchStore.subscribe((now, before) => this.follow(now, before));
    const stopProject = this.project.onProject((_project, steps) => {
      if (steps?.some(({ kind }) => kind === "change-rules")) this.done("change");
    });
    return () => {
      stopBench();
      stopProject();
    };
  };

  /** Nothing is said any more. */
  readonly dismiss = (): void => this.goTo(null);

  private readonly follow = (now: BenchState, before: BenchState): void => {
    if (now.walk !== null && before.walk === null) this.done("walk");
    const wasOffered = before.walk?.phase === "offered" && now.walk === null;
    if (wasOffered && now.discarded === null) this.done("keep");
    // A check that broke was looked at where it breaks.
    const broken = now.run?.verdicts.find(({ verdict }) => verdict === "fail");
    if (broken !== undefined && now.frame === broken.frame && before.frame !== now.frame) this.done("look");
  };

  private readonly done = (step: FirstStep): void => {
    if (this.store.getState().step === step) this.goTo(FIRST_STEPS[FIRST_STEPS.indexOf(step) + 1] ?? null);
  };

  private readonly goTo = (step: FirstStep | null): void => {
    keepSetting(KEPT, step ?? DONE);
    this.store.setState({ step });
  };
}

function keptStep(): FirstStep | null {
  const kept = keptSetting(KEPT);
  return kept === DONE ? null : (FIRST_STEPS.find((step) => step === kept) ?? FIRST_STEPS[0]);
}
