import type { Loss, PlayedWay, Target, Way } from "@keen-pebble/core/analyse";
import { changedWorld, sturdyLines } from "@keen-pebble/core/analyse";
import type { Check } from "@keen-pebble/core/check";
import { EMPTY_LOG, mergeLines, writeLog } from "@keen-pebble/core/check";
import type { RunStart } from "@keen-pebble/core/simulate";
import { withLinesOf } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { FACINGS, allFixtures, occupiedX, occupiedY, roomById } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import type { ReachFix, ReachShown, WayTo } from "../../workers/reach.ts";
import type { BenchStore } from "../bench/bench-store.ts";
import type { ShownLog } from "../bench/shown-log.ts";
import { freeSlug } from "../log/log-title.ts";
import type { ProjectSession } from "../project/project.ts";
import { ReachClient } from "./reach-client.ts";

/** From where it is asked what can be reached. */
export const ORIGINS = ["start", "frame", "cell"] as const;
export type Origin = (typeof ORIGINS)[number];

/** A cell that one might stand on, and what one holds there, by item. */
export interface Stand {
  readonly room: string;
  readonly cell: readonly [number, number];
  readonly bag: ReadonlyMap<string, number>;
}

/** Which things are listed. */
export const LISTS = ["all", "never", "untested"] as const;
export type ThingList = (typeof LISTS)[number];

/** The way that is shown: where it leads, and as it is played; never, with the reason, where there is none. */
export interface ShownWay {
  readonly title: string;
  readonly to: WayTo;
  /** Over the way: `The way to key-1`, or what the play shows. */
  readonly heading: string;
  readonly found: { readonly way: Way; readonly played: PlayedWay } | null;
  readonly never: string | null;
  /** What it leads to or shows, where single changes that open the way or fix the loss may be tried. */
  readonly target: Target | Loss | null;
}

/** What the Reach area shows. */
export interface ReachState {
  readonly phase: "none" | "looking" | "done" | "refused";
  readonly why: string | null;
  /** States looked at so far. */
  readonly states: number;
  readonly shown: ReachShown | null;
  /** The world that the answer is about: an older one while a new answer is worked out. */
  readonly world: World | null;
  readonly origin: Origin;
  /** The cell that is asked from, where that is the origin; the world's own start until one is chosen. */
  readonly stand: Stand | null;
  readonly rules: string | null;
  readonly list: ThingList;
  readonly way: ShownWay | null;
  /** The frame of the way that is shown on the plan. */
  readonly frame: number;
  /** Changes that open the way or fix the loss, as they are found; null while nobody asked. */
  readonly fixes: readonly ReachFix[] | null;
  readonly trying: boolean;
}

const NOTHING: ReachState = {
  phase: "none",
  why: null,
  states: 0,
  shown: null,
  world: null,
  origin: "start",
  stand: null,
  rules: null,
  list: "all",
  way: null,
  frame: 0,
  fixes: null,
  trying: false,
};

/** How long edits may pause before it is asked again, in ms. */
const PAUSE = 120;
/** Pictures that a way is played in at the most. */
const LONGEST_PLAY = 360;

/** What can be reached at all in the open world, asked anew after each change while somebody looks. */
export class ReachSession {
  readonly store = createStore<ReachState>(() => NOTHING);
  private client: ReachClient | null = null;
  private watchers = 0;
  private waiting: ReturnType<typeof setTimeout> | null = null;
  private asked = 0;
  private from: RunStart | null = null;
  private later: { readonly title: string; readonly to: WayTo } | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly shownLog: ShownLog,
  ) {}

  /** Answers while somebody looks; gives back what stops that. */
  readonly watch = (): (() => void) => {
    this.watchers++;
    const stop = this.project.onProject(() => this.askSoon());
    if (this.store.getState().world !== this.world()) this.ask();
    return () => {
      stop();
      this.watchers--;
      if (this.watchers === 0) this.rest();
    };
  };

  /** Forgets all of it: another world is opened. */
  readonly forget = (): void => {
    this.rest();
    this.store.setState(NOTHING, true);
  };

  readonly chooseOrigin = (origin: Origin): void => {
    this.store.setState({ origin });
    this.ask();
  };

  /** Asks from a cell, with what is held there as it was chosen before. */
  readonly askFrom = (room: string, cell: readonly [number, number]): void => {
    this.store.setState({ origin: "cell", stand: { room, cell, bag: this.stand()?.bag ?? new Map() } });
    this.ask();
  };

  /** Asks with so many of an item in the bag. */
  readonly askWith = (item: string, count: number): void => {
    const stand = this.stand();
    if (stand === null) return;
    this.store.setState({ stand: { ...stand, bag: new Map(stand.bag).set(item, count) } });
    this.askSoon();
  };

  /** Where one would stand: the chosen cell, as long as it is there, or the world's start. */
  readonly stand = (): Stand | null => {
    const world = this.world();
    if (world === null) return null;
    const { stand } = this.store.getState();
    const room = stand === null ? undefined : roomById(world, stand.room);
    if (stand !== null && room !== undefined && stand.cell[0] < room.width && stand.cell[1] < room.height) return stand;
    return { room: world.start.room, cell: world.start.cell, bag: stand?.bag ?? new Map<string, number>() };
  };

  readonly chooseRules = (rules: string): void => {
    this.store.setState({ rules });
    this.ask();
  };

  readonly chooseList = (list: ThingList): void => this.store.setState({ list });

  readonly cancel = (): void => {
    this.asked++;
    this.later = null;
    this.client?.cancel();
    this.store.setState({ phase: this.store.getState().shown === null ? "none" : "done" });
  };

  readonly askAgain = (): void => this.ask();

  /** Shows a way once the next answer is there: somebody comes from elsewhere to see it. */
  readonly showLater = (title: string, way: Way): void => {
    this.later = { title, to: { kind: "way", way } };
    void this.showWay(title, { kind: "way", way });
  };

  /**
   * Shows the nearest way to something.
   * @param loss what goes wrong on it
   */
  readonly showWay = async (title: string, to: WayTo, loss: Loss | null = null): Promise<void> => {
    const { phase, shown } = this.store.getState();
    // What is asked for while the next answer is looked for is wanted of that one too.
    if (phase === "looking" && to.kind !== "way") this.later = { title, to };
    if (this.client === null || shown === null) return;
    const answer = await this.client.way(to);
    if (this.store.getState().shown !== shown) return;
    const found = "way" in answer ? answer : null;
    const never = "never" in answer ? answer.never : null;
    const target = found === null && (to.kind === "cell" || to.kind === "fixture") ? to : loss;
    this.store.setState({
      way: { title, to, heading: to.kind === "way" ? title : `The way to ${title}`, found, never, target },
      frame: found === null ? 0 : found.played.rows.count - 1,
      fixes: null,
      trying: false,
    });
  };

  /** Tries single changes that would open the way which is shown as never, or fix the loss which it shows. */
  readonly tryFixes = async (): Promise<void> => {
    const { way } = this.store.getState();
    if (way?.target == null || this.client === null) return;
    this.store.setState({ fixes: [], trying: true });
    const isShown = (): boolean => this.store.getState().way === way;
    await this.client.fixes(way.target, (fix) => {
      if (isShown()) this.store.setState({ fixes: [...(this.store.getState().fixes ?? []), fix] });
    });
    if (isShown()) this.store.setState({ trying: false });
  };

  /** Makes such a change. */
  readonly applyFix = ({ change }: ReachFix): void => {
    const { rules } = this.store.getState();
    const world = this.world();
    if (world !== null) this.project.changeWorld((now) => changedWorld(now, rules ?? now.activeRules, change));
  };

  readonly showFrame = (frame: number): void => this.store.setState({ frame });

  /** Plays the shown way on the plan from its start, a frame of the game for a frame of the screen or more. */
  readonly play = (): void => {
    const { way } = this.store.getState();
    if (way?.found == null) return;
    const last = way.found.played.rows.count - 1;
    // A long way is played faster: it is there after a few seconds.
    const by = Math.max(1, Math.ceil(last / LONGEST_PLAY));
    let frame = 0;
    const next = (): void => {
      if (this.store.getState().way !== way) return;
      this.showFrame(frame);
      if (frame === last) return;
      frame = Math.min(last, frame + by);
      requestAnimationFrame(next);
    };
    next();
  };

  /** Keeps the shown way as a log; gives its id, or null where nothing is shown. */
  readonly keepWay = (): string | null => {
    const { project } = this.project.store.getState();
    const { way, rules } = this.store.getState();
    if (project === null || way?.found == null) return null;
    const title = way.heading;
    const id = freeSlug(title, [...project.logs.keys()]);
    const { world } = project;
    const { way: found, played } = way.found;
    const lines = mergeLines(sturdyLines(world, rules ?? world.activeRules, this.from, found, played));
    const text = writeLog({
      ...EMPTY_LOG,
      world: world.id,
      rules: rules ?? world.activeRules,
      start: this.from?.start ?? null,
      with: this.from?.with ?? [],
      title,
      checks: this.checksOf(way.found.played),
      lines: lines.length === 0 ? [{ kind: "keys", count: 1, keys: 0, pointer: null, until: null }] : lines,
    });
    if (!this.project.edit({ kind: "add-log", log: id, text })) return null;
    this.shownLog.selectLog(id, way.found.played.rows.count - 1);
    return id;
  };

  /** Adds checks that hold as things are now to the world's reach checks. */
  readonly addChecks = (checks: readonly string[]): void => {
    this.project.change((project) => ({
      ...project,
      world: { ...project.world, reachChecks: [...new Set([...project.world.reachChecks, ...checks])] },
    }));
  };

  readonly removeCheck = (check: string): void => {
    this.project.change((project) => ({
      ...project,
      world: { ...project.world, reachChecks: project.world.reachChecks.filter((each) => each !== check) },
    }));
  };

  /** That it ends where it ends: won, or in that cell. */
  private checksOf({ rows, steps }: PlayedWay): Check[] {
    const world = this.world()!;
    const units = world.tileSize * 256;
    const last = rows.count - 1;
    if (steps.at(-1)?.event === "win") return [{ when: { kind: "end" }, what: { kind: "status", status: "won" } }];
    const [x, y] = [occupiedX(units, rows.x[last]!), occupiedY(units, rows.y[last]!)];
    if (x < 0 || y < 0) return [];
    return [{ when: { kind: "end" }, what: { kind: "cell", x, y, room: world.rooms[rows.room[last]!]!.id } }];
  }

  private world(): World | null {
    return this.project.store.getState().project?.world ?? null;
  }

  private rest(): void {
    if (this.waiting !== null) clearTimeout(this.waiting);
    this.waiting = null;
    this.asked++;
    this.client?.close();
    this.client = null;
    // A way is asked for of the worker that is gone: what it answered is worked out anew.
    this.store.setState({ phase: "none", world: null });
  }

  private askSoon(): void {
    if (this.waiting !== null) clearTimeout(this.waiting);
    this.waiting = setTimeout(() => this.ask(), PAUSE);
  }

  private ask(): void {
    this.waiting = null;
    void this.search();
  }

  private async search(): Promise<void> {
    const { project } = this.project.store.getState();
    if (project === null || this.watchers === 0) return;
    const mine = ++this.asked;
    const { world, logs } = project;
    const { origin, rules: named } = this.store.getState();
    const rules = world.rules.some(({ id }) => id === named) ? named! : world.activeRules;
    const from = origin === "start" ? null : origin === "frame" ? this.frameStart(world) : this.cellStart(world);
    this.client ??= new ReachClient();
    this.store.setState({ phase: "looking", states: 0, rules });
    const answer = await this.client.ask(
      world,
      [...logs.values()],
      { rules, ...(from === null ? {} : { from }) },
      (states) => {
        if (mine === this.asked) this.store.setState({ states });
      },
    );
    if (mine !== this.asked || answer === null) return;
    if ("refused" in answer) {
      this.store.setState({ phase: "refused", why: answer.refused, shown: null, world, way: null });
      return;
    }
    this.from = from;
    this.store.setState({ phase: "done", why: null, shown: answer, world, states: answer.answer.states, way: null });
    await this.showFirst(world, answer);
  }

  /** The goal's way, or that of the thing that takes longest, so that there is something to see. */
  private async showFirst(world: World, { answer }: ReachShown): Promise<void> {
    const { later } = this;
    this.later = null;
    if (later !== null) return this.showWay(later.title, later.to);
    if (answer.goal !== null && answer.goal >= 0) return this.showWay("the goal", { kind: "goal" });
    const farthest = [...answer.fixtures].reduce((best, n, i, all) => (n > (all[best] ?? -1) ? i : best), 0);
    const id = allFixtures(world)[farthest]?.id;
    if (id !== undefined && answer.fixtures[farthest]! >= 0)
      await this.showWay(id, { kind: "fixture", fixture: farthest });
  }

  private cellStart(world: World): RunStart {
    const { room, cell, bag } = this.stand()!;
    const holds = world.items.flatMap(({ id }) => {
      const count = bag.get(id) ?? 0;
      return count > 0 ? [{ kind: "holds", item: id, count } as const] : [];
    });
    return { start: { room, cell, facing: world.start.facing }, with: holds };
  }

  /** The shown frame as a start: where the walker is, with what is remembered. */
  private frameStart(world: World): RunStart | null {
    const { run, frame, explanation } = this.benchStore.getState();
    if (run === null || explanation === null) return null;
    const { rows } = run;
    const at = Math.min(frame, run.frames);
    const units = world.tileSize * 256;
    const room = world.rooms[rows.room[at]!]!;
    const held = (n: number, size: number): number => Math.min(size - 1, Math.max(0, n));
    const cell = [
      held(occupiedX(units, rows.x[at]!), room.width),
      held(occupiedY(units, rows.y[at]!), room.height),
    ] as const;
    return {
      start: { room: room.id, cell, facing: FACINGS[rows.facing[at]!]! },
      with: withLinesOf(world, explanation.remembered),
    };
  }
}
