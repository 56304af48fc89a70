import type { Family, Observed, SearchState } from "@keen-pebble/core/analyse";
import { RuleSearch } from "@keen-pebble/core/analyse";
import type { Rules, World } from "@keen-pebble/core/world";
import { CoreError } from "@keen-pebble/core/world";
import type { Refused } from "./simulation.ts";

/** Time between two words on how far the search is, in ms. */
const TELL_EVERY = 150;

export const whichRules = {
  /**
   * Looks for the rules under which our walker walks as a game's does. To end it, end the worker.
   * @param tell told how far the search is; answers whether somebody has found it elsewhere
   */
  async search(
    world: World,
    base: Rules,
    traces: readonly Observed[],
    tolerance: number,
    families: readonly Family[],
    tell: (state: SearchState) => boolean | Promise<boolean>,
  ): Promise<SearchState | Refused> {
    try {
      let state: SearchState = { tried: 0, found: [] };
      let told = performance.now();
      const search = new RuleSearch(world, base, traces, tolerance);
      for (state of search.search(families)) {
        if (performance.now() - told < TELL_EVERY) continue;
        told = performance.now();
        search.isEnough = await tell(state);
      }
      return state;
    } catch (error) {
      if (error instanceof CoreError) return { refused: error.message };
      throw error;
    }
  },
};

export type WhichRules = typeof whichRules;
