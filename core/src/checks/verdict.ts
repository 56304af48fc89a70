import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import type { Check } from "./check.ts";
import { checkText } from "./check.ts";
import type { Holds } from "./condition-kind.ts";
import { compileCondition, danglingIn, seenText } from "./condition.ts";

/** How a check ended, at which frame, and what was seen there if it did not pass (formats.md section 2). */
export interface Verdict {
  /** The check's text, words parted by single blanks. */
  readonly check: string;
  readonly verdict: "pass" | "fail" | "unreached";
  /** The deciding frame. */
  readonly frame: number;
  readonly seen: string | null;
  /** It is one of the world's laws, not one of the log's own checks. */
  readonly law?: true;
}

/**
 * Watches one check over a run: `row` for every row from 0 on, then `finish` once. Decides at the frames that
 * formats.md section 2 names, and looks no further once it has decided.
 */
export class Watch {
  private verdict: Verdict | null = null;
  private readonly holds: Holds;
  private readonly text: string;
  private readonly dangling: string | null;

  constructor(
    private readonly c: Compiled,
    readonly check: Check,
  ) {
    this.holds = compileCondition(c, check.what);
    this.text = checkText(check);
    this.dangling = danglingIn(c.world, check.what);
  }

  /** Whether there is nothing more to look at. */
  get isDecided(): boolean {
    return this.verdict !== null;
  }

  /** Looks at the row of the state's frame. */
  row(s: SimState): void {
    if (this.verdict !== null) return;
    if (this.dangling !== null) {
      this.verdict = { check: this.text, verdict: "fail", frame: s.frame, seen: this.dangling };
      return;
    }
    const { when } = this.check;
    switch (when.kind) {
      case "at":
        if (s.frame === when.frame) this.decide(s, this.holds(s));
        return;
      case "by":
        if (this.holds(s)) this.decide(s, true);
        else if (s.frame === when.frame) this.decide(s, false);
        return;
      case "ever":
        if (this.holds(s)) this.decide(s, true);
        return;
      case "always":
        if (!this.holds(s)) this.decide(s, false);
        return;
      case "never":
        if (this.holds(s)) this.decide(s, false);
        return;
      case "end":
        return;
    }
  }

  /** The verdict, once the state's row was the last one. */
  finish(s: SimState): Verdict {
    if (this.verdict === null) {
      const { when } = this.check;
      if (when.kind === "at") {
        this.verdict = {
          check: this.text,
          verdict: "unreached",
          frame: s.frame,
          seen: `the run ended at frame ${s.frame}`,
        };
      } else {
        this.decide(s, when.kind === "always" || when.kind === "never" || (when.kind === "end" && this.holds(s)));
      }
    }
    return this.verdict!;
  }

  private decide(s: SimState, pass: boolean): void {
    const seen = pass ? null : seenText(this.c, this.check.what, s);
    this.verdict = { check: this.text, verdict: pass ? "pass" : "fail", frame: s.frame, seen };
  }
}

/** Whether a log holds: all its checks pass and no `until` ran out (formats.md section 2). */
export function logHolds(verdicts: readonly Verdict[]): boolean {
  return verdicts.every((verdict) => verdict.verdict === "pass");
}
