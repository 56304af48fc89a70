import type { Room, World } from "../world/world.ts";
import { writeWorld } from "./write-world.ts";

/** A world as plain JSON: what a world file holds once it is parsed. */
export type PlainWorld = Readonly<Record<string, unknown>>;

/** The world as plain JSON, with every key written. */
export function toPlain(world: World): PlainWorld {
  return JSON.parse(writeWorld(world)) as PlainWorld;
}

/**
 * The world out of plain JSON that `toPlain` made, without checking it again: for what comes from our own server or
 * worker. Files from outside go through `readWorld`.
 */
export function fromPlain(plain: PlainWorld): World {
  const {
    format: _format,
    version: _version,
    rooms,
    ...rest
  } = plain as Record<string, unknown> & { rooms: PlainRoom[] };
  const made = rooms.map(({ cells, ...room }) => ({ ...room, cells: Uint16Array.from(cells) }));
  return { ...rest, rooms: made } as unknown as World;
}

type PlainRoom = Omit<Room, "cells"> & { readonly cells: readonly number[] };
