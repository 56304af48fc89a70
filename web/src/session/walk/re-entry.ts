import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "../bench/bench-store.ts";
import type { ShownLog } from "../bench/shown-log.ts";
import type { Fixtures } from "../bench/fixtures.ts";
import type { ReEntry } from "@keen-pebble/core/analyse";
import { mergeLines, writeLog } from "@keen-pebble/core/check";
import { createStore } from "zustand/vanilla";
import { freeSlug } from "../log/log-title.ts";

/** The last re-entry test: under way, refused, given up after so many states, or what came of it. */
export type ReEntryState =
  | { readonly phase: "none" }
  | { readonly phase: "looking"; readonly room: string }
  | { readonly phase: "refused"; readonly room: string; readonly why: string }
  | { readonly phase: "not found"; readonly room: string; readonly states: number; readonly exhaustive: boolean }
  | { readonly phase: "done"; readonly room: string; readonly result: ReEntry };

/** The way out of a room and back, and what has returned then. */
export class ReEntries {
  readonly store = createStore<ReEntryState>(() => ({ phase: "none" }));
  /** Counts the tests: what was asked of an older world is dropped. */
  private asked = 0;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly shownLog: ShownLog,
    private readonly fixtures: Fixtures,
  ) {}

  /** What was tested is forgotten once the world or a log changes, or another world is opened. Gives back what stops that. */
  readonly startReEntry = (): (() => void) => {
    const stop = this.project.onProject(this.forget);
    return () => {
      stop();
      this.forget();
    };
  };

  private readonly forget = (): void => {
    this.asked++;
    this.store.setState({ phase: "none" }, true);
  };

  /** Leaves the room in which the shown frame is and comes back, and keeps what that changed. */
  readonly testReEntry = async (): Promise<void> => {
    const { project } = this.project.store.getState();
    const { log, run, frame } = this.benchStore.getState();
    const client = this.project.simulationClient();
    if (project === null || log === null || run === null || client === null) return;
    const mine = ++this.asked;
    const room = project.world.rooms[run.rows.room[Math.min(frame, run.frames)]!]!.id;
    this.store.setState({ phase: "looking", room }, true);
    const answer = await client.reEntry(project.logs.get(log)!, frame);
    if (mine !== this.asked) return;
    if ("refused" in answer) this.store.setState({ phase: "refused", room, why: answer.refused }, true);
    else if (answer.found === null) {
      const { states, exhaustive } = answer;
      this.store.setState({ phase: "not found", room, states, exhaustive }, true);
    } else this.store.setState({ phase: "done", room, result: answer.found }, true);
  };

  /** Keeps the way out and back as a log of its own, with the checks that it proves, and selects it. */
  readonly keepReEntry = (): void => {
    const { project } = this.project.store.getState();
    const tested = this.store.getState();
    if (project === null || tested.phase !== "done") return;
    const { result, room } = tested;
    const title = `Out of ${room} and back`;
    const id = freeSlug(title, [...project.logs.keys()]);
    if (
      this.project.edit({
        kind: "add-log",
        log: id,
        text: writeLog({ ...result.log, title, lines: mergeLines(result.log.lines) }),
      })
    )
      this.shownLog.selectLog(id, result.to);
  };

  /** Lets a fixture keep what happened to it for the whole run. */
  readonly keepForTheRun = (fixture: string): void => {
    this.fixtures.keepFor(fixture, "run");
  };
}
