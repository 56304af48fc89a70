import type { SideName } from "@keen-pebble/core/world";
import { addRoom, freeId, linkSides, moveRoom, openingAt, wallSide, wrapRoom } from "@keen-pebble/core/edit";
import { createStore } from "zustand/vanilla";
import { changeWorld, endStroke, notice, projectStore } from "../project/project.ts";

/** What the Floorplan shows: a view that is never saved. */
export interface FloorplanState {
  /** The chosen room. */
  readonly room: string | null;
  /** A side of a room from which a link is being dragged, and where the pointer is in plan px. */
  readonly linking: { readonly room: string; readonly side: SideName; readonly at: number; readonly x: number; readonly y: number } | null;
}

export const floorplanStore = createStore<FloorplanState>(() => ({ room: null, linking: null }));

const world = () => projectStore.getState().project!.world;

export function chooseRoomOnPlan(room: string | null): void {
  floorplanStore.setState({ room });
}

/** Chooses the room after the chosen one, or the one before it. */
export function chooseNextRoom(by: 1 | -1): void {
  const ids = world().rooms.map(({ id }) => id);
  const at = ids.indexOf(floorplanStore.getState().room ?? "");
  chooseRoomOnPlan(ids[at < 0 ? 0 : (at + by + ids.length) % ids.length]!);
}

/** Moves the chosen room by some cells. */
export function nudgeRoom(dx: number, dy: number): void {
  const { room: id } = floorplanStore.getState();
  const room = world().rooms.find((each) => each.id === id);
  if (room !== undefined) changeWorld((w) => moveRoom(w, room.id, room.plan[0] + dx, room.plan[1] + dy));
}

let stroke: string | null = null;

/** Moves a room on the plan, in cells; a drag is one stroke. */
export function dragRoom(room: string, x: number, y: number): void {
  stroke ??= crypto.randomUUID();
  const there = world().rooms.find(({ id }) => id === room)!.plan;
  if (there[0] !== x || there[1] !== y) changeWorld((w) => moveRoom(w, room, x, y), stroke);
}

export function endRoomDrag(): void {
  stroke = null;
  endStroke();
}

/** A link is dragged from a side: shown until it is let go. */
export function dragLink(linking: FloorplanState["linking"]): void {
  floorplanStore.setState({ linking });
}

/**
 * Links the side that was dragged from with the one that it was dropped on, the two places meeting.
 * @param how `oneWay` leaves the other side; `opening` links only the opening around the place
 */
export function dropLink(from: { readonly room: string; readonly side: SideName; readonly at: number }, to: { readonly room: string; readonly at: number }, how: { readonly oneWay: boolean; readonly opening: boolean }): void {
  const room = world().rooms.find(({ id }) => id === from.room)!;
  const span = how.opening ? openingAt(world(), room, from.side, from.at) : null;
  changeWorld((w) => linkSides(w, { room: from.room, side: from.side, to: to.room, offset: to.at - from.at, span, oneWay: how.oneWay }));
}

/** Wraps the chosen room across or down. */
export function wrapChosen(axis: "x" | "y"): void {
  const { room } = floorplanStore.getState();
  if (room !== null) changeWorld((w) => wrapRoom(w, room, axis));
}

/** Walls up a side of the chosen room. */
export function wallChosen(side: SideName): void {
  const { room } = floorplanStore.getState();
  if (room !== null) changeWorld((w) => wallSide(w, room, side));
}

/** Adds an empty room and chooses it. */
export function addRoomToPlan(): void {
  const id = freeId("room-1", world().rooms.map((each) => each.id));
  const name = `Room ${world().rooms.length + 1}`;
  if (changeWorld((w) => addRoom(w, id, name, 12, 8))) chooseRoomOnPlan(id);
  else notice("No room could be added.");
}
