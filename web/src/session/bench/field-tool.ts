import type { ProjectSession } from "../project/project.ts";
import type { Actors } from "./actors.ts";
import type { BenchStore } from "./bench-store.ts";
import type { Cell } from "./paint-cells.ts";
import type { Painting } from "./painting.ts";
import type { Placing } from "./placing.ts";
import type { Walls } from "./walls.ts";
import type { WorldSettings } from "./world-settings.ts";

/** A place in px of the room, beyond it too. */
export interface Px {
  readonly x: number;
  readonly y: number;
}

/** What is held: the start, an actor, fixtures, a wall or a pen. */
type Held = "start" | "actor" | "place" | "wall" | "paint";

/** The tool in hand: put down on the room, moved and let go, by the pointer or by the keys. */
export class FieldTool {
  private held: Held | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly parts: {
      readonly painting: Painting;
      readonly placing: Placing;
      readonly walls: Walls;
      readonly actors: Actors;
      readonly worldSettings: WorldSettings;
    },
  ) {}

  /** The cell of a px of the room; null while no world is there. */
  readonly cellOf = (px: Px): Cell | null => {
    const size = this.project.store.getState().project?.world.tileSize;
    return size === undefined ? null : { x: Math.floor(px.x / size), y: Math.floor(px.y / size) };
  };

  /**
   * Puts the tool down.
   * @param more whether what is chosen is chosen besides the others
   * @returns whether it is held until it is let go
   */
  readonly down = (px: Px, more: boolean): boolean => {
    this.up();
    const cell = this.cellOf(px);
    this.held = cell === null ? null : this.begin(px, cell, more);
    return this.held !== null;
  };

  private begin(px: Px, cell: Cell, more: boolean): Held | null {
    const { walk, tool, kit } = this.benchStore.getState();
    const { actors, painting, placing, walls, worldSettings } = this.parts;
    if (walk !== null) return null;
    if (kit === "world" && worldSettings.beginDrag(cell)) return "start";
    if (tool === "look") return kit === "actors" && actors.down(cell) ? "actor" : null;
    if (tool === "place") {
      placing.beginPlacing(cell, more);
      return "place";
    }
    if (tool === "wall") {
      walls.down(px);
      return "wall";
    }
    if (tool !== "paint") return null;
    painting.beginStroke(cell);
    return "paint";
  }

  /** Moves it, held or not. */
  readonly move = (px: Px): void => {
    const { actors, painting, placing, walls, worldSettings } = this.parts;
    if (this.benchStore.getState().tool === "wall") walls.move(px);
    const cell = this.cellOf(px);
    if (cell === null || this.held === null || this.held === "wall") return;
    if (this.held === "start") worldSettings.moveDrag(cell);
    else if (this.held === "actor") actors.move(cell);
    else if (this.held === "place") placing.movePlacing(cell);
    else painting.moveStroke(cell);
  };

  /** Lets it go. */
  readonly up = (): void => {
    const { actors, painting, placing, walls, worldSettings } = this.parts;
    const { held } = this;
    this.held = null;
    if (held === "paint") painting.finishStroke();
    else if (held === "place") placing.finishPlacing();
    else if (held === "wall") walls.up();
    else if (held === "start") worldSettings.endDrag();
    else if (held === "actor") actors.up();
  };
}
