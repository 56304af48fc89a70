import { allActors } from "../world/queries.ts";
import type { World } from "../world/world.ts";

/** Where a flag is used: by how many tiles, in how many cells, asked for by which rule sets, joined by which tiles. */
export interface FlagUses {
  readonly tiles: number;
  readonly cells: number;
  readonly rules: readonly string[];
  readonly joins: number;
  /** Actors to which its cells are shut. */
  readonly actors: readonly string[];
}

/** Where each flag of the world is used, by its name. */
export function flagUses(world: World, tileUses: Uint32Array): Map<string, FlagUses> {
  return new Map(
    world.flags.map((flag) => {
      const carriers = world.tiles.flatMap((tile, i) => (tile.flags.includes(flag) ? [i] : []));
      return [
        flag,
        {
          tiles: carriers.length,
          cells: carriers.reduce((sum, i) => sum + tileUses[i]!, 0),
          rules: world.rules.filter((rules) => rules.walker.blockedBy.includes(flag)).map((rules) => rules.name),
          joins: world.tiles.filter((tile) => tile.joins?.to === flag).length,
          actors: allActors(world).flatMap(({ blockedBy, id }) => (blockedBy.includes(flag) ? [id] : [])),
        },
      ];
    }),
  );
}

/** The world with a flag added. */
export function addFlag(world: World, flag: string): World {
  return { ...world, flags: [...world.flags, flag] };
}

/** The world with a flag called otherwise, everywhere. */
export function renameFlag(world: World, from: string, to: string): World {
  const renamed = (flag: string): string => (flag === from ? to : flag);
  return {
    ...world,
    flags: world.flags.map(renamed),
    tiles: world.tiles.map((tile) => ({
      ...tile,
      flags: tile.flags.map(renamed),
      joins: tile.joins && { ...tile.joins, to: renamed(tile.joins.to) },
    })),
    rules: world.rules.map((rules) => ({
      ...rules,
      walker: { ...rules.walker, blockedBy: rules.walker.blockedBy.map(renamed) },
    })),
    rooms: actorsBlockedBy(world, (flags) => flags.map(renamed)),
  };
}

/** The world without a flag: no tile carries it, nobody, no actor either, is blocked by it, and what joined by it joins no more. */
export function removeFlag(world: World, flag: string): World {
  const others = (flags: readonly string[]): string[] => flags.filter((each) => each !== flag);
  return {
    ...world,
    flags: others(world.flags),
    tiles: world.tiles.map((tile) => ({
      ...tile,
      flags: others(tile.flags),
      joins: tile.joins?.to === flag ? null : tile.joins,
    })),
    rules: world.rules.map((rules) => ({
      ...rules,
      walker: { ...rules.walker, blockedBy: others(rules.walker.blockedBy) },
    })),
    rooms: actorsBlockedBy(world, others),
  };
}

/** The rooms with the flags changed that shut cells to their actors. */
function actorsBlockedBy(world: World, change: (flags: readonly string[]) => string[]): World["rooms"] {
  return world.rooms.map((room) =>
    room.actors.length === 0
      ? room
      : { ...room, actors: room.actors.map((actor) => ({ ...actor, blockedBy: change(actor.blockedBy) })) },
  );
}

/** The world with a flag given to some tiles, or taken from them. The empty tile carries none. */
export function setFlag(world: World, ids: readonly string[], flag: string, on: boolean): World {
  return {
    ...world,
    tiles: world.tiles.map((tile, i) => {
      if (i === 0 || !ids.includes(tile.id) || tile.flags.includes(flag) === on) return tile;
      const flags = on
        ? world.flags.filter((each) => each === flag || tile.flags.includes(each))
        : tile.flags.filter((each) => each !== flag);
      return { ...tile, flags };
    }),
  };
}

/** The world in which a rule set's walker is blocked by a flag, or is not. */
export function setBlockedBy(world: World, rulesId: string, flag: string, on: boolean): World {
  return {
    ...world,
    rules: world.rules.map((rules) => {
      if (rules.id !== rulesId) return rules;
      const blockedBy = world.flags.filter((each) => (each === flag ? on : rules.walker.blockedBy.includes(each)));
      return { ...rules, walker: { ...rules.walker, blockedBy } };
    }),
  };
}
