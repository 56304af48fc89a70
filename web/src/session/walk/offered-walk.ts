import type { ProjectSession } from "../project/project.ts";
import type { BenchStore, OfferedWalk } from "../bench/bench-store.ts";
import type { Outbox } from "../project/outbox.ts";
import type { ShownLog } from "../bench/shown-log.ts";
import type { Check, InputLog } from "@keen-pebble/core/check";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { checksOfWalk, readLog, writeLog } from "@keen-pebble/core/check";
import { compile, explainFrame, run } from "@keen-pebble/core/simulate";
import { CoreError } from "@keen-pebble/core/world";
import { freeSlug } from "../log/log-title.ts";
import { firstDifference } from "../bench/first-difference.ts";

/** @throws {CoreError} where the log cannot be run */
function replayed(world: World, log: InputLog, onto: string | null, seen: TraceRows | null): OfferedWalk {
  const c = compile(world, log.rules ?? undefined);
  const rows = run(c, log, { rows: true }).rows!;
  return {
    phase: "offered",
    room: rows.room[rows.count - 1]!,
    rows,
    log,
    onto,
    checks: checksOfWalk(c, log),
    differs: seen === null ? null : firstDifference(seen, rows),
  };
}

/** A walk that was made: kept as a log, kept in its log, or discarded. */
export class WalkOffer {
  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly outbox: Outbox,
    private readonly shownLog: ShownLog,
  ) {}

  /**
   * Offers a walk to be kept, replayed under the rules as they are now: what is kept is what the log says.
   * @param seen the rows that were seen while it was walked
   */
  readonly offerReplayed = (log: InputLog, onto: string | null, seen: TraceRows): void => {
    const { project } = this.project.store.getState();
    if (project === null) return;
    try {
      const offered = replayed(project.world, log, onto, seen);
      if (offered.differs !== null)
        this.benchStore.setState({
          explanation: explainFrame(compile(project.world, log.rules ?? undefined), log, Infinity),
        });
      this.offer(offered);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.project.notice(
        `This walk cannot be replayed in the world as it is now (${error.message}). It stays in this browser until the next walk.`,
      );
      this.letWalkGo();
    }
  };

  /** Offers the walk of an open world that was not kept on the last visit once more; one that was discarded comes back by undo. */
  readonly offerKeptWalk = async (): Promise<void> => {
    const { worldId, project } = this.project.store.getState();
    if (worldId === null || project === null) return;
    const kept = await this.outbox.keptWalk(worldId);
    if (kept === null || this.project.store.getState().worldId !== worldId || this.benchStore.getState().walk !== null)
      return;
    try {
      const log = readLog(kept.log);
      const offered = replayed(
        project.world,
        log,
        kept.onto !== null && project.logs.has(kept.onto) ? kept.onto : null,
        null,
      );
      if (kept.discarded) this.benchStore.setState({ discarded: offered });
      else this.offer(offered);
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      this.project.notice(
        `A walk of your last visit that was not kept cannot be walked in this world any more (${error.message}). It stays in this browser until the next walk.`,
        "info",
      );
    }
  };

  private readonly offer = (offered: OfferedWalk): void => {
    this.benchStore.setState({
      walk: offered,
      playing: false,
      frame: offered.rows.count - 1,
      room: this.project.store.getState().project!.world.rooms[offered.room]!.id,
    });
  };

  /** Keeps the offered walk as a log with a title and checks, and selects it. */
  readonly keepWalk = (title: string, checks: readonly Check[]): void => {
    const { walk: offered } = this.benchStore.getState();
    const { project } = this.project.store.getState();
    if (offered?.phase !== "offered" || project === null) return;
    const id = freeSlug(title, [...project.logs.keys()]);
    const named = title.trim() === "" ? id : title.trim();
    const text = writeLog({ ...offered.log, accept: null, title: named, checks });
    const last = offered.rows.count - 1;
    if (!this.project.edit({ kind: "add-log", log: id, text })) return;
    this.isKept();
    this.shownLog.selectLog(id, last);
  };

  /** Keeps the offered walk in the log that it went on from, with its title and checks. */
  readonly keepInLog = (): void => {
    const { walk: offered } = this.benchStore.getState();
    const { project } = this.project.store.getState();
    const before = offered?.onto == null ? undefined : project?.logs.get(offered.onto);
    if (offered?.phase !== "offered" || offered.onto === null || before === undefined) return;
    const last = offered.rows.count - 1;
    const after = writeLog({ ...offered.log, accept: null });
    if (after !== before && !this.project.edit({ kind: "change-log", log: offered.onto, before, after })) return;
    this.isKept();
    this.shownLog.selectLog(offered.onto, last);
  };

  /** Lets the walk go; undo brings it back, also after a reload, until the next walk. */
  readonly discardWalk = (): void => {
    const { walk: offered } = this.benchStore.getState();
    if (offered?.phase !== "offered") return;
    this.rememberWalk(offered.log, offered.onto, true);
    this.letWalkGo();
    this.benchStore.setState({ discarded: offered });
  };

  /** Whether the last thing that was done is that a walk was discarded. */
  readonly canTakeWalkBack = (): boolean => {
    const { discarded, walk: present } = this.benchStore.getState();
    return discarded !== null && present === null;
  };

  /** Offers the discarded walk again. */
  readonly takeWalkBack = (): void => {
    const { discarded } = this.benchStore.getState();
    if (discarded === null) return;
    this.rememberWalk(discarded.log, discarded.onto, false);
    this.benchStore.setState({ discarded: null });
    this.offer(discarded);
  };

  /** The walk is a log now. */
  private readonly isKept = (): void => {
    const { worldId } = this.project.store.getState();
    if (worldId !== null) void this.outbox.keepWalk(worldId, null);
    this.benchStore.setState({ walk: null, tool: "paint" });
  };

  /** Puts the walk away and shows the log again that was shown before. */
  readonly letWalkGo = (): void => {
    this.benchStore.setState({ walk: null, tool: "paint" });
    this.shownLog.selectLog(this.benchStore.getState().log);
  };

  /** Keeps a walk in this browser until the next one. */
  readonly rememberWalk = (log: InputLog, onto: string | null, discarded: boolean): void => {
    const { worldId } = this.project.store.getState();
    if (worldId !== null) void this.outbox.keepWalk(worldId, { log: writeLog(log), onto, discarded });
  };
}
