import { createStore } from "zustand/vanilla";
import type { BenchStore } from "./bench-store.ts";
import type { ProjectSession } from "../project/project.ts";

/** The rules as a program, beside the rule set: which setting somebody points at, and whether the folder is being made. */
export interface TakenHomeState {
  readonly pointed: string | null;
  readonly making: boolean;
}

/** The rules taken home: shown in place of the field, and saved as a folder. */
export class TakenHome {
  readonly store = createStore<TakenHomeState>(() => ({ pointed: null, making: false }));

  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
  ) {}

  /** Shows the program in place of the field, or the field again. */
  readonly toggle = (): void => {
    this.benchStore.setState(({ showsProgram }) => ({ showsProgram: !showsProgram }));
  };

  /** Lights the passages of the program that stand there for a setting; null for none. */
  readonly point = (pointed: string | null): void => {
    if (this.store.getState().pointed !== pointed) this.store.setState({ pointed });
  };

  /** The folder as a ZIP, with all logs of the world that can run in it; null where it cannot be made. */
  readonly make = async (rules: string): Promise<Blob | null> => {
    const client = this.project.simulationClient();
    if (client === null || this.store.getState().making) return null;
    this.store.setState({ making: true });
    const answer = await client.takeHome(rules);
    this.store.setState({ making: false });
    if ("refused" in answer) {
      this.project.notice(`The rules cannot be taken home: ${answer.refused}.`);
      return null;
    }
    const { leftOut } = answer;
    if (leftOut.length > 0)
      this.project.notice(
        `Without the logs that cannot run: ${leftOut.join(", ")}. All else is in the folder.`,
        "info",
      );
    const { strToU8, zipSync } = await import("fflate");
    const entries = answer.files.map(({ path, text }) => [path, strToU8(text)] as const);
    // One time for all: the same rules give the same bytes.
    const bytes = zipSync(Object.fromEntries(entries), { mtime: new Date(1980, 0, 1) });
    return new Blob([bytes], { type: "application/zip" });
  };
}
