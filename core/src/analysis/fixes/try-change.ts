import { CoreError } from "../../base/core-error.ts";
import { logHolds } from "../../checks/verdict.ts";
import { logFindings } from "../findings/log-findings.ts";
import type { LogFinding } from "../findings/mistake.ts";
import type { InputLog } from "../../logs/input-log.ts";
import { cellsOfBody } from "../../ground/free.ts";
import type { Ground } from "../../ground/ground.ts";
import { resolveCell, resolved, solidAt } from "../../ground/ground.ts";
import { NOTHING } from "../../ground/solid-shape.ts";
import { Prover } from "../../replay/prover.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import { observe, run } from "../../replay/run.ts";
import type { World } from "../../world/world.ts";
import type { SingleChange } from "./single-change.ts";
import type { StopCell } from "./candidates.ts";
import { changedWorld, isOfRules } from "./single-change.ts";

/** What one change of a rule set does to the log that it is tried on, and to the others. */
export interface Trial {
  readonly change: SingleChange;
  /** All checks of the log hold, and the world's laws. */
  readonly holds: boolean;
  /** The walk is another one than without the change. */
  readonly differs: boolean;
  /** Logs that hold without the change and would not with it; only asked for where the log holds. */
  readonly breaks: readonly string[];
  /** Of the findings that name the changed setting, those that the change takes away (indexes). */
  readonly cures: readonly number[];
}

/** The project as it is before any change: what every trial is compared with. */
export interface Trying {
  readonly world: World;
  readonly rules: string;
  readonly log: string;
  readonly logs: ReadonlyMap<string, InputLog>;
  readonly pathHash: string;
  readonly findings: readonly LogFinding[];
  /** The other logs that hold now; they are run when it is asked for the first time. */
  readonly holding: () => readonly string[];
  /** Cells that blocked the walker, the first ones. */
  readonly stops: readonly StopCell[];
}

/**
 * Runs the log once as it is, and looks for its findings.
 * @throws {CoreError} where the log cannot be run
 */
export function beginTrying(world: World, logs: ReadonlyMap<string, InputLog>, log: string): Trying {
  const own = logs.get(log)!;
  const rules = own.rules ?? world.activeRules;
  const prover = new Prover(world);
  const c = prover.compiledFor(own);
  let holding: readonly string[] | null = null;
  return {
    world,
    stops: stopCells(c, own),
    rules,
    log,
    logs,
    pathHash: run(c, own).pathHash,
    findings: logFindings(c, own),
    holding: () => (holding ??= [...logs.keys()].filter((each) => each !== log && prover.prove(logs.get(each)!).holds)),
  };
}

/** Tries one change. Never throws for what the world refuses: that change mends nothing. */
export function tryChange(trying: Trying, change: SingleChange): Trial {
  const { world, rules, log, logs, findings } = trying;
  const nothing: Trial = { change, holds: false, differs: false, breaks: [], cures: [] };
  try {
    const changed = changedWorld(world, rules, change);
    // Compiled once for each rule set, whatever the number of logs.
    const prover = new Prover(changed);
    const c = prover.compiledFor(logs.get(log)!);
    const result = run(c, logs.get(log)!, { checks: true });
    if (!logHolds(result.verdicts)) return nothing;
    const named = findings.flatMap((finding, i) =>
      finding.path === change.path || finding.cures.some((cure) => JSON.stringify(cure) === JSON.stringify(change))
        ? [i]
        : [],
    );
    const left = named.length === 0 ? [] : logFindings(c, logs.get(log)!);
    const cures = named.filter(
      (i) => !left.some((again) => again.kind === findings[i]!.kind && again.path === findings[i]!.path),
    );
    return {
      change,
      holds: true,
      differs: result.pathHash !== trying.pathHash,
      breaks: trying.holding().filter((each) => canBreak(trying, each, change) && !prover.prove(logs.get(each)!).holds),
      cures,
    };
  } catch (error) {
    if (error instanceof CoreError) return nothing;
    throw error;
  }
}

/** Only logs that go by the same rule set can break where a rule set changes. */
function canBreak({ world, rules, logs }: Trying, log: string, change: SingleChange): boolean {
  return !isOfRules(change) || (logs.get(log)!.rules ?? world.activeRules) === rules;
}

const MOST_STOPS = 24;

/** The cells that blocked the walker in a log, seams looked through, those first that did so first. */
function stopCells(c: Compiled, log: InputLog): StopCell[] {
  const found = new Map<string, StopCell>();
  const add = (ground: Ground, room: number, cx: number, cy: number): void => {
    if (found.size >= MOST_STOPS || solidAt(ground, room, cx, cy) === NOTHING || !resolveCell(ground, room, cx, cy))
      return;
    const there = c.world.rooms[resolved.room]!;
    const cell = { room: there.id, x: resolved.cell % there.width, y: Math.floor(resolved.cell / there.width) };
    found.set(`${cell.room} ${cell.x} ${cell.y}`, cell);
  };
  observe(c, log, {
    frame(s, account, _began, ground) {
      if (found.size >= MOST_STOPS) return;
      const tried = [
        ...account.choices
          .flat()
          .filter(({ taken }) => !taken)
          .flatMap(({ places }) => places),
        ...account.axes.flatMap(({ place }) => (place === null ? [] : [place])),
      ];
      for (const place of tried)
        if (!place.free) for (const { cx, cy } of cellsOfBody(c, place.x, place.y)) add(ground, s.previousRoom, cx, cy);
      for (const { dx, dy, movedX, movedY, shapes } of account.axes)
        if (movedX !== dx || movedY !== dy) for (const { cx, cy } of shapes) add(ground, s.previousRoom, cx, cy);
    },
  });
  return [...found.values()];
}

/** Whether a trial mends the log: all its checks hold, no other log breaks. */
export function isFix(trial: Trial): boolean {
  return trial.holds && trial.breaks.length === 0;
}
