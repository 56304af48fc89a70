import type { AskedOf } from "../commands/asked.ts";
import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";
import type { FieldTool, Px } from "./field-tool.ts";

/** The field's cell cursor: what the pointer does, by keys (interface.md, by keyboard). It is in the middle of its cell. */
export class FieldCursor {
  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly tool: FieldTool,
    private readonly asked: Pick<AskedOf, "showPlace">,
  ) {}

  /** Whether the cursor is shown, and something can be done with it. */
  readonly isShown = (): boolean => {
    const { cursor, pointer, walk } = this.benchStore.getState();
    return cursor !== "none" && pointer !== null && walk === null;
  };

  readonly isHeld = (): boolean => this.benchStore.getState().cursor === "held";

  /** Moves it by cells, as far as the room goes; it begins where the pointer is, else where the walker is or starts. */
  readonly moveBy = (dx: number, dy: number): void => {
    const { project } = this.project.store.getState();
    const { cursor, room: roomId } = this.benchStore.getState();
    const room = project?.world.rooms.find(({ id }) => id === roomId);
    if (project === null || room === undefined) return;
    const from = this.tool.cellOf(this.from())!;
    // The first press shows where it is.
    const [byX, byY] = cursor === "none" ? [0, 0] : [dx, dy];
    const size = project.world.tileSize;
    const within = (n: number, count: number): number => Math.min(Math.max(n, 0), count - 1);
    const at = {
      x: within(from.x + byX, room.width) * size + size / 2,
      y: within(from.y + byY, room.height) * size + size / 2,
    };
    this.benchStore.setState({ pointer: at, cursor: cursor === "held" ? "held" : "shown" });
    this.asked.showPlace.ask(at.x, at.y);
    this.tool.move(at);
  };

  /** Puts the tool in hand down in its cell and lets it go. */
  readonly press = (): void => {
    if (this.isHeld()) return this.letGo();
    const { pointer } = this.benchStore.getState();
    if (pointer === null) return;
    this.tool.down(pointer, false);
    this.tool.up();
  };

  /** Puts the tool down and holds it, so that it draws as the cursor moves; again: lets it go. */
  readonly hold = (): void => {
    if (this.isHeld()) return this.letGo();
    const { pointer } = this.benchStore.getState();
    if (pointer !== null && this.tool.down(pointer, false)) this.benchStore.setState({ cursor: "held" });
  };

  private letGo(): void {
    this.benchStore.setState({ cursor: "shown" });
    this.tool.up();
  }

  private from(): Px {
    const { pointer, run, frame, room } = this.benchStore.getState();
    const { world } = this.project.store.getState().project!;
    if (pointer !== null) return pointer;
    const size = world.tileSize;
    const rows = run?.rows ?? null;
    if (rows !== null && world.rooms[rows.room[frame]!]?.id === room)
      return { x: rows.x[frame]! / 256 + size / 2, y: rows.y[frame]! / 256 + size / 2 };
    const { start } = world;
    if (start.room === room) return { x: start.cell[0] * size, y: start.cell[1] * size };
    return { x: 0, y: 0 };
  }
}
