import equal from "fast-deep-equal";
import type { Room, World } from "./world.ts";

/** Plain JSON; null stands for what is not there. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** Parts of a world that are replaced whole. */
export const WHOLE_PARTS = [
  "name",
  "tileSize",
  "frameRate",
  "seed",
  "flags",
  "circuits",
  "lives",
  "respawnRestores",
  "activeRules",
  "camera",
  "figure",
  "start",
  "goal",
  "laws",
  "reachChecks",
] as const;

/** Parts that are lists of things with an id: a thing is `tiles/brick`, the order of the ids is `tiles`. */
export const LIST_PARTS = ["sheets", "tiles", "items", "rules", "games", "rooms"] as const;
export type ListPart = (typeof LIST_PARTS)[number];

/** Parts of a room besides its cells, such as `rooms/intake-hall/edges`. */
export const ROOM_PARTS = ["name", "plan", "edges", "fixtures", "actors"] as const;

/** What a part's address means, or null where it is none. */
export type PartAddress =
  | { readonly kind: "whole"; readonly key: (typeof WHOLE_PARTS)[number] }
  | { readonly kind: "order"; readonly list: ListPart }
  | { readonly kind: "thing"; readonly list: ListPart; readonly id: string }
  | { readonly kind: "of-room"; readonly room: string; readonly key: (typeof ROOM_PARTS)[number] };

const among = <T extends string>(keys: readonly T[], key: string | undefined): key is T => keys.includes(key as T);

/** Takes a part's address apart: `camera`, `tiles`, `tiles/brick`, `rooms/intake-hall/edges`. */
export function partAddress(part: string): PartAddress | null {
  const [first, id, key, more] = part.split("/");
  if (more !== undefined) return null;
  if (id === undefined) {
    if (among(WHOLE_PARTS, first)) return { kind: "whole", key: first };
    return among(LIST_PARTS, first) ? { kind: "order", list: first } : null;
  }
  if (key === undefined) return among(LIST_PARTS, first) && id !== "" ? { kind: "thing", list: first, id } : null;
  return first === "rooms" && among(ROOM_PARTS, key) ? { kind: "of-room", room: id, key } : null;
}

/** The part as plain JSON; null where the world does not have it. */
export function partOf(world: World, address: PartAddress): Json {
  switch (address.kind) {
    case "whole":
      return world[address.key] as Json;
    case "order":
      return world[address.list].map((thing) => thing.id);
    case "thing": {
      const thing = (world[address.list] as readonly { readonly id: string }[]).find((each) => each.id === address.id);
      if (thing === undefined) return null;
      return plainThing(address.list, thing);
    }
    case "of-room":
      return (world.rooms.find((room) => room.id === address.room)?.[address.key] ?? null) as Json;
  }
}

/** The world with the part replaced. Things that were not there come last in their list; an order sorts it. */
export function withPart(world: World, address: PartAddress, value: Json): World {
  switch (address.kind) {
    case "whole":
      return { ...world, [address.key]: value };
    case "order": {
      const order = value as readonly string[];
      const list = [...(world[address.list] as readonly { readonly id: string }[])];
      return { ...world, [address.list]: list.sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id)) };
    }
    case "thing": {
      const list = world[address.list] as readonly { readonly id: string }[];
      const at = list.findIndex((each) => each.id === address.id);
      const thing =
        value === null
          ? []
          : [
              address.list === "rooms"
                ? roomOf(value as unknown as PlainRoom)
                : (value as unknown as { readonly id: string }),
            ];
      return {
        ...world,
        [address.list]: at < 0 ? [...list, ...thing] : [...list.slice(0, at), ...thing, ...list.slice(at + 1)],
      };
    }
    case "of-room":
      return {
        ...world,
        rooms: world.rooms.map((room) => (room.id === address.room ? { ...room, [address.key]: value } : room)),
      };
  }
}

/** Whether two pieces of JSON say the same, in whatever order their keys stand. */
export function sameJson(a: Json, b: Json): boolean {
  return equal(a, b);
}

/** Steps that were stored before there were actors have none. */
type PlainRoom = Omit<Room, "cells" | "actors"> & {
  readonly cells: readonly number[];
  readonly actors?: Room["actors"];
};

function plainThing(list: ListPart, thing: object): Json {
  return (list === "rooms" ? { ...thing, cells: Array.from((thing as Room).cells) } : thing) as Json;
}

function roomOf(plain: PlainRoom): Room {
  return { ...plain, actors: plain.actors ?? [], cells: Uint16Array.from(plain.cells) };
}
