import type { EditStep, Explanation, Project, Verdict } from "@keen-pebble/core";
import type { Remote } from "comlink";
import { wrap } from "comlink";
import type { Refused, RunAnswer, Simulation } from "../workers/simulation.worker.ts";

/** The page's end of a simulation worker. Calls are answered in the order in which they were made. */
export class SimulationClient {
  private readonly worker = new Worker(new URL("../workers/simulation.worker.ts", import.meta.url), { type: "module" });
  private readonly remote: Remote<Simulation> = wrap<Simulation>(this.worker);

  load(project: Project): void {
    void this.remote.load(project);
  }

  apply(steps: readonly EditStep[]): void {
    void this.remote.apply(steps);
  }

  run(text: string, beside: string | null = null): Promise<RunAnswer | Refused> {
    return this.remote.run(text, beside);
  }

  verdicts(texts: readonly string[]): Promise<readonly (readonly Verdict[] | Refused)[]> {
    return this.remote.verdicts(texts);
  }

  explain(text: string, frame: number, beside: string | null = null): Promise<Explanation | Refused> {
    return this.remote.explain(text, frame, beside);
  }

  fingerprint(text: string): Promise<string | Refused> {
    return this.remote.fingerprint(text);
  }

  clearance(room: string): Promise<Uint8Array | Refused> {
    return this.remote.clearance(room);
  }

  /** Ends the worker. */
  close(): void {
    this.worker.terminate();
  }
}
