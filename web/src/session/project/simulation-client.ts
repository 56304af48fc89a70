import type { Finding, ReEntrySearch } from "@keen-pebble/core/analyse";
import type { Check, UntilChoice, Verdict } from "@keen-pebble/core/check";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import type { Explanation } from "@keen-pebble/core/simulate";
import type { Remote } from "comlink";
import { wrap } from "comlink";
import { packed } from "./packed-steps.ts";
import type { Elsewhere, Refused, RunAnswer, Simulation } from "../../workers/simulation.ts";

const CLOSED: Refused = { refused: "the world was closed" };

/** The page's end of a simulation worker. Calls are answered in the order in which they were made. */
export class SimulationClient {
  private readonly worker = new Worker(new URL("../../workers/page.worker.ts", import.meta.url), {
    type: "module",
    name: "simulation",
  });
  private readonly remote: Remote<Simulation> = wrap<Simulation>(this.worker);

  private closed = false;
  /** Of questions that are not answered yet, what ends the waiting. */
  private readonly waiting = new Set<() => void>();

  load(project: Project): void {
    void this.remote.load(project);
  }

  apply(steps: readonly EditStep[]): void {
    void this.remote.apply(steps.map(packed));
  }

  /** Hands in the world as it was at a revision, for runs elsewhere. */
  hold(revision: number, project: Project): void {
    void this.remote.hold(revision, project);
  }

  run(text: string, elsewhere: Elsewhere | null = null): Promise<RunAnswer | Refused> {
    return this.orEnd<RunAnswer | Refused>(this.remote.run(text, elsewhere), CLOSED);
  }

  explain(text: string, frame: number, elsewhere: Elsewhere | null = null): Promise<Explanation | Refused> {
    return this.orEnd<Explanation | Refused>(this.remote.explain(text, frame, elsewhere), CLOSED);
  }

  checksTrueAt(text: string, frame: number): Promise<readonly Check[] | Refused> {
    return this.orEnd<readonly Check[] | Refused>(this.remote.checksTrueAt(text, frame), CLOSED);
  }

  verdictOf(text: string, check: Check): Promise<Verdict | Refused> {
    return this.orEnd<Verdict | Refused>(this.remote.verdictOf(text, check), CLOSED);
  }

  untilChoices(text: string, line: number): Promise<readonly UntilChoice[] | Refused> {
    return this.orEnd<readonly UntilChoice[] | Refused>(this.remote.untilChoices(text, line), CLOSED);
  }

  reEntry(text: string, frame: number): Promise<ReEntrySearch | Refused> {
    return this.orEnd<ReEntrySearch | Refused>(this.remote.reEntry(text, frame), CLOSED);
  }

  takeHome(rules: string): Promise<ReturnType<Simulation["takeHome"]>> {
    return this.orEnd<ReturnType<Simulation["takeHome"]>>(this.remote.takeHome(rules), CLOSED);
  }

  fingerprint(text: string): Promise<string | Refused> {
    return this.orEnd<string | Refused>(this.remote.fingerprint(text), CLOSED);
  }

  clearance(room: string): Promise<Uint8Array | Refused> {
    return this.orEnd<Uint8Array | Refused>(this.remote.clearance(room), CLOSED);
  }

  startFinding(): Promise<Finding | null | Refused> {
    return this.orEnd<Finding | null | Refused>(this.remote.startFinding(), CLOSED);
  }

  /** Ends the worker; what was asked for and not answered yet is refused. */
  close(): void {
    this.worker.terminate();
    this.closed = true;
    for (const end of [...this.waiting]) end();
  }

  /** An ended worker never answers: whoever waits for it must not wait for ever. */
  private orEnd<T>(answer: Promise<T>, closed: T): Promise<T> {
    if (this.closed) return Promise.resolve(closed);
    return new Promise<T>((resolve, reject) => {
      const end = (): void => resolve(closed);
      this.waiting.add(end);
      answer.then(resolve, reject).finally(() => this.waiting.delete(end));
    });
  }
}
