import type { BenchStore, Pen } from "./bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import type { Room } from "@keen-pebble/core/world";
import { brushLine, floodCells, frameCells, rectCells, rectOf } from "./paint-cells.ts";
import type { Cell, Rect } from "./paint-cells.ts";
import { copyPiece, flipPiece, layPiece, pieceCorner, turnPiece } from "./piece.ts";
import { layActors, layFixtures } from "@keen-pebble/core/edit";
import { LARGEST_BRUSH } from "./bench-store.ts";
import type { Placing } from "./placing.ts";
import type { Piece } from "./piece.ts";

function isInside(room: Room, { x, y }: Cell): boolean {
  return x >= 0 && y >= 0 && x < room.width && y < room.height;
}

/** Painting tiles, and rectangles that are copied and laid. */
export class Painting {
  /** The stroke under way: its name, and where the pointer was last. */
  private stroke: { readonly name: string; last: Cell } | null = null;

  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
    private readonly placing: Placing,
  ) {}

  /** The shown room, and whether it may be painted now. */
  private readonly shownRoom = (): Room | null => {
    const { room, walk } = this.benchStore.getState();
    return walk === null
      ? (this.project.store.getState().project?.world.rooms.find((each) => each.id === room) ?? null)
      : null;
  };

  /** Number of the tile that the pen lays: the empty one for the eraser. */
  private readonly penTile = (): number => {
    const { pen, tile } = this.benchStore.getState();
    const tiles = this.project.store.getState().project?.world.tiles ?? [];
    return pen === "erase"
      ? 0
      : Math.max(
          0,
          tiles.findIndex((each) => each.id === tile),
        );
  };

  /** Chooses a way to paint. */
  readonly choosePen = (pen: Pen): void => {
    this.benchStore.setState({ pen, tool: "paint", laying: false, ...(pen === "select" ? {} : { selection: null }) });
  };

  /** Chooses the box; where it is chosen already, between all of it and its frame, which is as thick as the brush. */
  readonly chooseBox = (): void => {
    const { boxFrame, pen, tool } = this.benchStore.getState();
    this.choosePen("box");
    this.benchStore.setState({ boxFrame: pen === "box" && tool === "paint" ? !boxFrame : boxFrame });
  };

  private boxCells(room: Room, rect: Rect): number[] {
    const { boxFrame, brush } = this.benchStore.getState();
    return boxFrame ? frameCells(room, rect, brush) : rectCells(room, rect);
  }

  /** Makes the brush larger or smaller. */
  readonly changeBrush = (by: number): void => {
    this.benchStore.setState((state) => ({ brush: Math.min(Math.max(state.brush + by, 1), LARGEST_BRUSH) }));
  };

  /** Takes the tile of a cell to paint with. */
  readonly pickTile = (cell: Cell): void => {
    const room = this.shownRoom();
    if (!room || !isInside(room, cell)) return;
    const tile = this.project.store.getState().project!.world.tiles[room.cells[cell.y * room.width + cell.x]!]!;
    this.benchStore.setState((state) => ({
      tile: tile.id,
      chosenTiles: [tile.id],
      tool: "paint",
      pen: state.pen === "erase" || state.pen === "select" ? "brush" : state.pen,
    }));
  };

  /** The pointer goes down on a cell. */
  readonly beginStroke = (cell: Cell): void => {
    const room = this.shownRoom();
    if (room === null) return;
    const { pen, laying } = this.benchStore.getState();
    this.stroke = { name: crypto.randomUUID(), last: cell };
    if (laying) this.layDown(cell);
    else if (pen === "bucket") this.paintCells(room, floodCells(room, cell), this.penTile());
    else if (pen === "brush" || pen === "erase")
      this.paintCells(room, brushLine(room, cell, cell, this.benchStore.getState().brush), this.penTile());
    else this.benchStore.setState({ drag: { from: cell, to: cell } });
  };

  /** The pointer moves to a cell. */
  readonly moveStroke = (cell: Cell): void => {
    const room = this.shownRoom();
    if (this.stroke === null || room === null || (cell.x === this.stroke.last.x && cell.y === this.stroke.last.y))
      return;
    const { pen, drag, brush, laying } = this.benchStore.getState();
    if (drag !== null) this.benchStore.setState({ drag: { ...drag, to: cell } });
    else if (!laying && (pen === "brush" || pen === "erase"))
      this.paintCells(room, brushLine(room, this.stroke.last, cell, brush), this.penTile());
    this.stroke.last = cell;
  };

  /** The pointer goes up: a line or a box is painted, a rectangle is chosen. */
  readonly finishStroke = (): void => {
    const room = this.shownRoom();
    const { pen, drag, brush } = this.benchStore.getState();
    if (this.stroke !== null && room !== null && drag !== null) {
      if (pen === "line") this.paintCells(room, brushLine(room, drag.from, drag.to, brush), this.penTile());
      if (pen === "box") this.paintCells(room, this.boxCells(room, rectOf(drag.from, drag.to)), this.penTile());
      if (pen === "select") this.benchStore.setState({ selection: rectOf(drag.from, drag.to) });
    }
    this.stroke = null;
    this.benchStore.setState({ drag: null });
    this.project.endStroke();
  };

  /** Lets go of what is under way without painting it: a drag, then the piece that is being laid, then the rectangle. */
  readonly letGo = (): void => {
    const { drag, laying } = this.benchStore.getState();
    this.stroke = null;
    this.placing.letGo();
    this.benchStore.setState(drag !== null ? { drag: null } : laying ? { laying: false } : { selection: null });
  };

  /** Copies the chosen rectangle; with `cut` the empty tile is left there, and its fixtures and actors move once it is laid. */
  readonly copySelection = (cut: boolean): void => {
    const room = this.shownRoom();
    const { selection } = this.benchStore.getState();
    const world = this.project.store.getState().project?.world;
    if (!room || !world || selection === null) return;
    const piece = copyPiece(
      room,
      selection,
      world.tiles.map((tile) => tile.id),
      cut,
    );
    if (piece === null) return;
    if (cut) {
      this.stroke = { name: crypto.randomUUID(), last: selection };
      this.paintCells(room, rectCells(room, selection), 0);
      this.stroke = null;
      this.project.endStroke();
    }
    this.benchStore.setState({ piece, ...(cut ? {} : { laying: false }) });
  };

  /** Takes the copied piece up to lay it down with a click. */
  readonly takeUpPiece = (): void => {
    if (this.benchStore.getState().piece !== null)
      this.benchStore.setState({ laying: true, tool: "paint", pen: "select", selection: null });
  };

  /** Flips or turns the piece: the copied one, or what is in the rectangle. */
  readonly changePiece = (how: "flip x" | "flip y" | "turn"): void => {
    const { piece, laying } = this.benchStore.getState();
    if (piece === null || !laying) return;
    this.benchStore.setState({
      piece: how === "turn" ? turnPiece(piece) : flipPiece(piece, how === "flip x" ? "x" : "y"),
    });
  };

  private readonly layDown = (cell: Cell): void => {
    const room = this.shownRoom();
    const { piece } = this.benchStore.getState();
    const world = this.project.store.getState().project?.world;
    if (!room || !world || piece === null) return;
    const numbers = new Map(world.tiles.map((tile, i) => [tile.id, i]));
    const { cells, tiles } = layPiece(room, piece, cell);
    const gone = tiles.find((tile) => !numbers.has(tile));
    this.setCells(
      room,
      cells,
      tiles.map((tile, i) => numbers.get(tile) ?? room.cells[cells[i]!]!),
    );
    this.layThings(room, piece, cell);
    // An edit takes away what was said before it.
    if (gone !== undefined)
      this.project.notice(`The piece has a tile ${gone}, which is no longer there; it was pasted without it.`);
  };

  /** The piece's fixtures and actors: those of one that was cut move, those of a copy are new ones. */
  private readonly layThings = (room: Room, piece: Piece, middle: Cell): void => {
    if (piece.fixtures.length + piece.actors.length === 0) return;
    const { x, y } = pieceCorner(piece, middle);
    // What was taken away meanwhile cannot move: it comes as a copy.
    const moved = new Set(piece.moves);
    this.project.changeWorld((w) => {
      const { world } = layFixtures(w, room.id, piece.fixtures, [x, y], moved);
      return layActors(world, room.id, piece.actors, [x, y], moved);
    }, this.stroke?.name);
    if (piece.moves.length > 0) this.benchStore.setState({ piece: { ...piece, moves: [] } });
  };

  private readonly paintCells = (room: Room, cells: readonly number[], tile: number): void => {
    this.setCells(
      room,
      cells,
      cells.map(() => tile),
    );
  };

  private readonly setCells = (room: Room, cells: readonly number[], tiles: readonly number[]): void => {
    const changed = cells.map((_, i) => i).filter((i) => room.cells[cells[i]!] !== tiles[i]);
    if (changed.length === 0) return;
    this.project.edit(
      {
        kind: "set-cells",
        room: room.id,
        cells: changed.map((i) => cells[i]!),
        before: changed.map((i) => room.cells[cells[i]!]!),
        after: changed.map((i) => tiles[i]!),
      },
      this.stroke?.name ?? null,
    );
  };

  /** What the pointer would do if it went down now, as rectangles of cells, for the field to show. */
  readonly preview = (): { readonly rects: readonly Rect[]; readonly cells: readonly number[] } | null => {
    const room = this.shownRoom();
    const { tool, pen, drag, pointer, boxFrame, brush, laying, piece } = this.benchStore.getState();
    const size = this.project.store.getState().project?.world.tileSize;
    if (tool === "place" && drag !== null) return { rects: [], cells: this.placing.spanned() };
    if (tool !== "paint" || room === null || size === undefined) return null;
    if (drag !== null) {
      if (pen === "line") return { rects: [], cells: brushLine(room, drag.from, drag.to, brush) };
      const rect = rectOf(drag.from, drag.to);
      return { rects: [rect], cells: pen === "box" && boxFrame ? this.boxCells(room, rect) : [] };
    }
    if (pointer === null) return null;
    const cell = { x: Math.floor(pointer.x / size), y: Math.floor(pointer.y / size) };
    if (laying && piece !== null)
      return {
        rects: [
          {
            x: cell.x - Math.floor(piece.width / 2),
            y: cell.y - Math.floor(piece.height / 2),
            width: piece.width,
            height: piece.height,
          },
        ],
        cells: [],
      };
    if (!isInside(room, cell)) return null;
    const before = Math.floor((brush - 1) / 2);
    const wide = pen === "brush" || pen === "erase" || pen === "line";
    return {
      rects: [
        wide
          ? { x: cell.x - before, y: cell.y - before, width: brush, height: brush }
          : { ...cell, width: 1, height: 1 },
      ],
      cells: [],
    };
  };
}
