import type { ShelfSession } from "./shelf.ts";
import type { World } from "@keen-pebble/core/world";
import { layRoom, writeWorld } from "@keen-pebble/core/formats";
import { emptyWorld } from "@keen-pebble/core/world";
import { freeSlug } from "../log/log-title.ts";
import type { TypedRoom } from "../bench/rooms.ts";

/** What the form for an empty world takes. */
export const SIZES = { cells: [1, 512], tileSize: [4, 128] } as const;

/** What a typed room is read as: a world with that room, or what is not in order. */
export type TypedWorld = { readonly world: World } | TypedRoom;

/** Rooms to begin with and to type on. */
export const TEMPLATES: readonly { readonly name: string; readonly text: string }[] = [
  {
    name: "Round a pillar",
    text: `############
#..........#
#.S........#
#....##....#
#....##....#
#..........#
############

S = start on floor facing=down
`,
  },
  {
    name: "Two halls and a gap",
    text: `###############
#......#......#
#.S....#......#
#.............#
#......#......#
#......#......#
###############

S = start on floor facing=right
`,
  },
  {
    name: "Winding way",
    text: `#############
#S..#...#...#
#.#.#.#.#.#.#
#.#...#...#.#
#.#########.#
#...........#
#############

S = start on floor facing=down
`,
  },
];

/** Reads a typed room into a new world of its own. */
export async function readTyped(text: string): Promise<TypedWorld> {
  const { readRoomText } = await import("@keen-pebble/core/reading");
  const base = emptyWorld("typed", "Typed", 16);
  const result = readRoomText(text, base, "room-1");
  return "refusals" in result ? result : { world: layRoom(base, "room-1", result.draft) };
}

/** Worlds made anew: empty, typed, or to try things in. */
export class WorldMaking {
  /** @param onMade is told of each world that is made: whoever makes one wants to be in it */
  constructor(
    private readonly shelf: ShelfSession,
    private readonly onMade: (world: string) => void,
  ) {}

  /** Puts an empty world of one room on the shelf. */
  readonly makeEmptyWorld = (name: string, width: number, height: number, tileSize: number): void => {
    const id = this.idFor(name);
    this.put(emptyWorld(id, name, tileSize, [width, height]));
  };

  /** Puts a world with a typed room on the shelf. */
  readonly makeTypedWorld = (name: string, world: World): void => {
    this.put({ ...world, id: this.idFor(name), name });
  };

  /** Puts a copy of the Trying grounds on the shelf. */
  readonly makeTryingGrounds = async (name: string): Promise<void> => {
    const { tryingGrounds } = await import("./trying-grounds.ts");
    this.shelf.bringIn(await tryingGrounds(this.idFor(name), name), null, "made", this.onMade);
  };

  private readonly idFor = (name: string): string => {
    return freeSlug(
      name,
      (this.shelf.store.getState().worlds ?? []).map((world) => world.id),
    );
  };

  private readonly put = (world: World): void => {
    this.shelf.bringIn([new File([writeWorld(world)], `${world.id}.world.json`)], null, "made", this.onMade);
  };
}
