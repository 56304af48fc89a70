import type { ProjectSession } from "../project/project.ts";
import type { SideName } from "@keen-pebble/core/world";
import { addRoom, freeId, linkSides, moveRoom, openingAt, wallSide, wrapRoom } from "@keen-pebble/core/edit";
import { createStore } from "zustand/vanilla";

/** What the Floorplan shows: a view that is never saved. */
export interface FloorplanState {
  /** The chosen room. */
  readonly room: string | null;
  /** A side of a room from which a link is being dragged, and where the pointer is in plan px. */
  readonly linking: {
    readonly room: string;
    readonly side: SideName;
    readonly at: number;
    readonly x: number;
    readonly y: number;
  } | null;
}

/** Rooms on the floorplan: chosen, moved, linked. */
export class FloorplanSession {
  readonly store = createStore<FloorplanState>(() => ({ room: null, linking: null }));
  private stroke: string | null = null;

  constructor(private readonly project: ProjectSession) {}

  private readonly world = () => this.project.store.getState().project!.world;

  readonly chooseRoomOnPlan = (room: string | null): void => {
    this.store.setState({ room });
  };

  /** Chooses the room after the chosen one, or the one before it. */
  readonly chooseNextRoom = (by: 1 | -1): void => {
    const ids = this.world().rooms.map(({ id }) => id);
    const at = ids.indexOf(this.store.getState().room ?? "");
    this.chooseRoomOnPlan(ids[at < 0 ? 0 : (at + by + ids.length) % ids.length]!);
  };

  /** Moves the chosen room by some cells. */
  readonly nudgeRoom = (dx: number, dy: number): void => {
    const { room: id } = this.store.getState();
    const room = this.world().rooms.find((each) => each.id === id);
    if (room !== undefined) this.project.changeWorld((w) => moveRoom(w, room.id, room.plan[0] + dx, room.plan[1] + dy));
  };

  /** Moves a room on the plan, in cells; a drag is one stroke. */
  readonly dragRoom = (room: string, x: number, y: number): void => {
    this.stroke ??= crypto.randomUUID();
    const there = this.world().rooms.find(({ id }) => id === room)!.plan;
    if (there[0] !== x || there[1] !== y) this.project.changeWorld((w) => moveRoom(w, room, x, y), this.stroke);
  };

  readonly endRoomDrag = (): void => {
    this.stroke = null;
    this.project.endStroke();
  };

  /** A link is dragged from a side: shown until it is let go. */
  readonly dragLink = (linking: FloorplanState["linking"]): void => {
    this.store.setState({ linking });
  };

  /**
   * Links the side that was dragged from with the one that it was dropped on, the two places meeting.
   * @param how `oneWay` leaves the other side; `opening` links only the opening around the place
   */
  readonly dropLink = (
    from: { readonly room: string; readonly side: SideName; readonly at: number },
    to: { readonly room: string; readonly at: number },
    how: { readonly oneWay: boolean; readonly opening: boolean },
  ): void => {
    const room = this.world().rooms.find(({ id }) => id === from.room)!;
    const span = how.opening ? openingAt(this.world(), room, from.side, from.at) : null;
    this.project.changeWorld((w) =>
      linkSides(w, {
        room: from.room,
        side: from.side,
        to: to.room,
        offset: to.at - from.at,
        span,
        oneWay: how.oneWay,
      }),
    );
  };

  /** Wraps the chosen room across or down. */
  readonly wrapChosen = (axis: "x" | "y"): void => {
    const { room } = this.store.getState();
    if (room !== null) this.project.changeWorld((w) => wrapRoom(w, room, axis));
  };

  /** Links a side of the chosen room with the opposite one of another, both beginning at the same place, as a drag does. */
  readonly linkChosen = (side: SideName, to: string): void => {
    const { room } = this.store.getState();
    if (room !== null) this.dropLink({ room, side, at: 0 }, { room: to, at: 0 }, { oneWay: false, opening: false });
  };

  /** Walls up a side of the chosen room. */
  readonly wallChosen = (side: SideName): void => {
    const { room } = this.store.getState();
    if (room !== null) this.project.changeWorld((w) => wallSide(w, room, side));
  };

  /** Adds an empty room and chooses it. */
  readonly addRoomToPlan = (): void => {
    const id = freeId(
      "room-1",
      this.world().rooms.map((each) => each.id),
    );
    const name = `Room ${this.world().rooms.length + 1}`;
    if (this.project.changeWorld((w) => addRoom(w, id, name, 12, 8))) this.chooseRoomOnPlan(id);
    else this.project.notice("No room could be added.");
  };
}
