import { compile } from "../../simulation/compile.ts";
import { SETTINGS, settingApplies, settingValue, withSetting } from "../../world/settings.ts";
import type { Rules, World } from "../../world/world.ts";
import type { Agreement } from "./agreement.ts";
import { agreementOf } from "./agreement.ts";
import type { Dimension, Family } from "./dimensions.ts";
import { FAMILIES, asOf, beginnings, dimensionsOf, pointDimensions, product } from "./dimensions.ts";
import type { Observed } from "./observed.ts";
import type { ReadOff } from "./read-off.ts";
import { readOff } from "./read-off.ts";

/** A rule set and how well it reproduces what was seen, all traces together. */
export interface FoundRules extends Agreement {
  readonly rules: Rules;
}

/** How far the search is. */
export interface SearchState {
  /** Rule sets that were run. */
  readonly tried: number;
  /** The best of each kind of movement so far, the best of all first. */
  readonly found: readonly FoundRules[];
}

/** Rule sets that are run between two moments at which one may leave. */
const TRIES_BETWEEN = 50;

/** So many values of two things together are few enough to be tried all, in so many kinds of movement that come near. */
const FEW_PAIRS = [200, 3000] as const;
const NEAR_FAMILIES = 4;

/** Looks for the rules under which our walker walks as a game's does. */
export class RuleSearch {
  private readonly found = new Map<Family, FoundRules>();
  private readonly seen: ReadOff;
  private tried = 0;
  /** Somebody has found it elsewhere: only what is quick is still looked at, for the ranking. */
  isEnough = false;

  /**
   * @param base the rule set to begin from: what cannot be told from the traces stays as it has it
   * @param tolerance in units
   */
  constructor(
    private readonly world: World,
    private readonly base: Rules,
    private readonly traces: readonly Observed[],
    private readonly tolerance: number,
  ) {
    this.seen = readOff(traces);
  }

  /**
   * Searches kind by kind, those that begin best first: every thing by itself until nothing is better, then in pairs.
   * Stops for a moment after each thing: whoever goes through it may leave whenever it has had enough.
   * @param families kinds to search, so that several may search side by side; all where it is left out
   */
  *search(families: readonly Family[] = FAMILIES): Generator<SearchState, void> {
    for (const family of families) {
      const begun = [
        ...(this.isOf(this.base, family) ? [this.base] : []),
        ...beginnings(this.base, family, this.seen, this.world.tileSize),
      ];
      this.found.set(family, begun.map((rules) => this.tryRules(rules, null)).sort(byAgreement)[0]!);
      yield this.state();
    }
    for (const family of this.inOrder(families)) yield* this.climb(family, this.dimensions(family));
    const points = pointDimensions(this.world.tileSize);
    const withPoints = (family: Family): readonly Dimension[] => [...points, ...this.dimensions(family)];
    const [nearest] = this.inOrder(families);
    if (nearest !== undefined && !this.isPerfect()) yield* this.climb(nearest, withPoints(nearest));
    yield* this.handOver(families);
    for (const family of this.inOrder(families).slice(0, NEAR_FAMILIES))
      if (!this.isPerfect()) yield* this.climb(family, withPoints(family));
    for (const most of FEW_PAIRS)
      for (const family of this.inOrder(families).slice(0, NEAR_FAMILIES)) {
        if (this.isPerfect()) break;
        const dimensions = this.dimensions(family);
        yield* this.climb(family, [
          ...pairsOf(dimensions, this.found.get(family)!.rules, most),
          ...dimensions,
          ...points,
        ]);
      }
    for (const family of families) {
      this.found.set(family, this.nearest(this.found.get(family)!));
      yield this.state();
    }
  }

  private dimensions(family: Family): readonly Dimension[] {
    return dimensionsOf(this.world, family, this.seen);
  }

  /** Those that come nearest first. */
  private inOrder(families: readonly Family[]): readonly Family[] {
    return [...families].sort((a, b) => byAgreement(this.found.get(a)!, this.found.get(b)!));
  }

  /** What one kind found of body, keys and speeds may be what another lacked. */
  private *handOver(families: readonly Family[]): Generator<SearchState, void> {
    const [best] = this.state().found;
    if (best === undefined) return;
    for (const family of families) {
      if (family.gait !== best.rules.gait || this.isOf(best.rules, family)) continue;
      const before = this.found.get(family)!;
      this.found.set(family, this.tryRules(asOf(best.rules, family), null));
      yield* this.climb(family, this.dimensions(family));
      if (byAgreement(this.found.get(family)!, before) > 0) this.found.set(family, before);
    }
  }

  private isOf({ gait, ...rules }: Rules, family: Family): boolean {
    if (gait !== family.gait) return false;
    return gait === "hop" || gait === "glide" || rules[gait].response === family.response;
  }

  private state(): SearchState {
    return { tried: this.tried, found: [...this.found.values()].sort(byAgreement) };
  }

  private isPerfect(): boolean {
    if (this.isEnough) return true;
    return [...this.found.values()].some(({ first }) => first === null);
  }

  /** Tries the values of one thing after the other, and goes on with the best, until none is better. */
  private *climb(family: Family, dimensions: readonly Dimension[]): Generator<SearchState, void> {
    let since = 0;
    for (let i = 0; since < dimensions.length; i = (i + 1) % dimensions.length) {
      if (this.found.get(family)!.first === null) return;
      since++;
      for (const rules of dimensions[i]!(this.found.get(family)!.rules)) {
        if (this.tried % TRIES_BETWEEN === 0) yield this.state();
        const best = this.found.get(family)!;
        const made = this.tryRules(rules, best);
        if (byAgreement(made, best) >= 0) continue;
        this.found.set(family, made);
        since = 0;
      }
      yield this.state();
    }
  }

  /** @param than once so many frames are missed that it cannot be better, it is left there */
  private tryRules(rules: Rules, than: FoundRules | null): FoundRules {
    this.tried++;
    const c = compile({ ...this.world, rules: [rules], activeRules: rules.id });
    let [agreed, frames] = [0, 0];
    let first: number | null = null;
    let left = than === null ? Infinity : than.frames - than.agreed;
    for (const seen of this.traces) {
      const one = agreementOf(c, seen, this.tolerance, left);
      agreed += one.agreed;
      frames += one.frames;
      left -= one.frames - one.agreed;
      if (one.first !== null) first = Math.min(first ?? Infinity, one.first);
    }
    return { rules, agreed, frames, first };
  }

  /** The same walk with as many settings as can be as the rule set has them that was begun from. */
  private nearest(found: FoundRules): FoundRules {
    let best = found;
    const back = (rules: Rules): void => {
      const made = this.tryRules(rules, best);
      if (made.agreed === best.agreed && made.frames === best.frames && made.first === best.first) best = made;
    };
    back({ ...best.rules, walker: this.base.walker });
    for (const { path } of SETTINGS)
      if (settingValue(best.rules, path) !== settingValue(this.base, path))
        if (settingApplies(best.rules, path)) back(withSetting(best.rules, path, settingValue(this.base, path)));
        else best = { ...best, rules: withSetting(best.rules, path, settingValue(this.base, path)) };
    return best;
  }
}

/** Below 0 where `a` is better: fewer frames missed, then the first one later. */
export function byAgreement(a: Agreement, b: Agreement): number {
  const missed = a.frames - a.agreed - (b.frames - b.agreed);
  return missed !== 0
    ? missed
    : (b.first ?? Infinity) === (a.first ?? Infinity)
      ? 0
      : (b.first ?? Infinity) - (a.first ?? Infinity);
}

/** Two things at a time, where their values are few enough together; those with the fewest first. */
function pairsOf(dimensions: readonly Dimension[], rules: Rules, most: number): readonly Dimension[] {
  const sizes = dimensions.map((dimension) => dimension(rules).length);
  const pairs = dimensions.flatMap((one, i) =>
    dimensions.slice(i + 1).map((other, k) => ({ size: sizes[i]! * sizes[i + 1 + k]!, both: product(one, other) })),
  );
  return pairs
    .filter(({ size }) => size <= most)
    .sort((a, b) => a.size - b.size)
    .map(({ both }) => both);
}
