import type { LaidWall, Outline } from "@keen-pebble/core/edit";
import { layWall, outlineFault, straightWall, tidyCutTiles, wallShapes, wallTile } from "@keen-pebble/core/edit";
import type { Pair, Room, Shape, Tile } from "@keen-pebble/core/world";
import type { ProjectSession } from "../project/project.ts";
import type { BenchStore, WallPen, WallWay } from "./bench-store.ts";
import { cellsText } from "./cells-text.ts";
import { readWallNumbers } from "./wall-numbers.ts";
import { turnedWall } from "./turned-wall.ts";

/** Corners nearer to the first one than this, in px, close the wall. */
const CLOSES_WITHIN = 3;

/** A wall under way: its outline, and what it would make of the cells. */
export interface WallPreview {
  readonly outline: Outline;
  /** Why it cannot be laid, or null. */
  readonly fault: string | null;
  readonly cells: readonly { readonly cell: number; readonly shape: Shape; readonly off: number }[];
}

/** Walls drawn by hand, in px of the room; they are cut along the cells when they are laid. */
export class Walls {
  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  private readonly set = (part: Partial<WallPen>): void => {
    this.benchStore.setState(({ wall }) => ({ wall: { ...wall, ...part } }));
  };

  private readonly pen = (): WallPen => this.benchStore.getState().wall;

  private readonly room = (): Room | null => {
    const { room, walk } = this.benchStore.getState();
    const world = this.project.store.getState().project?.world;
    return walk === null ? (world?.rooms.find(({ id }) => id === room) ?? null) : null;
  };

  /** The tile that a wall is of: the chosen one, or what it was cut from. */
  readonly tile = (): Tile | null => {
    const world = this.project.store.getState().project?.world;
    const chosen = world?.tiles.find(({ id }) => id === this.benchStore.getState().tile);
    return world === undefined || chosen === undefined ? null : wallTile(world, chosen);
  };

  /** Takes the pen up; a tile that blocks nothing is changed for the first one that does. */
  readonly takeUp = (): void => {
    this.benchStore.setState({ tool: "wall", laying: false, selection: null });
    const tile = this.tile();
    const solid = this.project.store.getState().project?.world.tiles.find(({ flags }) => flags.length > 0);
    if (tile?.flags.length === 0 && solid !== undefined)
      this.benchStore.setState({ tile: solid.id, chosenTiles: [solid.id] });
  };

  readonly chooseWay = (way: WallWay): void => this.set({ way, corners: [] });
  readonly setThickness = (thickness: number): void => this.set({ thickness });
  readonly setSnap = (snap: number): void => this.set({ snap });

  private readonly snapped = ({ x, y }: { readonly x: number; readonly y: number }): Pair => {
    const { snap } = this.pen();
    return [Math.round(x / snap) * snap, Math.round(y / snap) * snap];
  };

  /** The pointer goes down, at a px of the room: a drag begins, or a corner is set; the first one again closes. */
  readonly down = (px: { readonly x: number; readonly y: number }): void => {
    const { way, corners } = this.pen();
    const at = this.snapped(px);
    if (way !== "corners") return this.set({ corners: [at], to: at, laid: "" });
    const [first] = corners;
    const closes =
      first !== undefined &&
      corners.length > 2 &&
      Math.max(Math.abs(at[0] - first[0]), Math.abs(at[1] - first[1])) <= CLOSES_WITHIN;
    if (closes) this.finish();
    else this.set({ corners: [...corners, at], to: at, laid: "" });
  };

  readonly move = (px: { readonly x: number; readonly y: number } | null): void => {
    this.set({ to: px === null ? null : this.snapped(px) });
  };

  /** The button goes up: what was dragged is laid. */
  readonly up = (): void => {
    if (this.pen().way !== "corners") this.finish();
  };

  /** Lays what was drawn. */
  readonly finish = (): void => {
    const { way, corners } = this.pen();
    const outline = way === "corners" ? corners : this.outline();
    this.set({ corners: [] });
    // A click that draws nothing is no act.
    if (way === "corners" || outlineFault(outline) === null) this.lay(outline);
  };

  readonly isUnderWay = (): boolean => this.benchStore.getState().tool === "wall" && this.pen().corners.length > 0;

  /** Lets go of what is under way: the last corner, or all of a drag. */
  readonly letGo = (): void => {
    const { way, corners } = this.pen();
    this.set({ corners: way === "corners" ? corners.slice(0, -1) : [] });
  };

  /** Lays a wall given as numbers; refused with a place where they are none. */
  readonly layNumbers = (text: string): string | null => {
    const read = readWallNumbers(text);
    if ("fault" in read) return read.fault;
    const fault = outlineFault(read.outline);
    if (fault === null) this.lay(read.outline);
    return fault;
  };

  private readonly lay = (outline: Outline): void => {
    const room = this.room();
    const tile = this.tile();
    if (room === null || tile === null) return;
    let result: LaidWall = { fault: "there is no such room" };
    this.project.changeWorld((world) => {
      result = layWall(world, room.id, outline, tile.id);
      return "fault" in result ? world : result.world;
    });
    if ("fault" in result) this.project.notice(`No wall was added: ${(result as { fault: string }).fault}.`);
    else this.set({ laid: laidText(result) });
  };

  /** The outline as it would be laid now; none where nothing is under way. */
  private readonly outline = (): Outline => {
    const { way, thickness, corners, to } = this.pen();
    const [from] = corners;
    if (from === undefined || to === null) return corners;
    if (way === "straight") return straightWall(from, to);
    return way === "turned" ? turnedWall(from, to, thickness) : [...corners, to];
  };

  /** What is under way, for the field to show. */
  readonly preview = (): WallPreview | null => {
    if (!this.isUnderWay()) return null;
    const room = this.room();
    const tile = this.tile();
    const world = this.project.store.getState().project?.world;
    if (room === null || tile === null || world === undefined) return null;
    const outline = this.outline();
    const fault = outlineFault(outline);
    return { outline, fault, cells: fault === null ? wallShapes(world, room, outline, tile).shapes : [] };
  };

  /** Deletes the tiles that walls were cut into and that no cell has any more. */
  readonly tidy = (): void => {
    this.project.changeWorld(tidyCutTiles);
  };
}

/** What a wall became, in words. */
function laidText({ changed, made, rounding, off, kept }: Exclude<LaidWall, { readonly fault: string }>): string {
  if (changed === 0) return "Nothing changed: all of it was solid already, or lies outside the room.";
  const parts = [`${changed} ${changed === 1 ? "cell" : "cells"}, ${made} new ${made === 1 ? "tile" : "tiles"}.`];
  if (kept > 0)
    parts.push(
      `${kept} more ${kept === 1 ? "was" : "were"} solid there already and ${kept === 1 ? "stays" : "stay"} as before.`,
    );
  if (rounding > 0) parts.push(`Between cells its edges are off by up to ${rounding.toFixed(2)} px.`);
  if (off.length > 0) {
    const most = Math.max(...off.map(({ off: by }) => by));
    parts.push(`Off by up to ${most} px, as no shape says it exactly: ${cellsText(off.map(({ cell }) => cell))}.`);
  }
  return parts.join(" ");
}
