import type { Finding } from "@keen-pebble/core/analyse";
import { invariantFault } from "@keen-pebble/core/check";
import type { FigurePlaces, ScaledProject } from "@keen-pebble/core/edit";
import { changesWorld, figureOf, moveStart, scaleCells, turnStart } from "@keen-pebble/core/edit";
import type { Camera, Facing, Goal, Pair, RespawnRestores, World } from "@keen-pebble/core/world";
import { LIMITS } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";
import type { Cell } from "./paint-cells.ts";

/** What a world has besides its rooms, tiles and rules: its name, where one starts, lives, goal, laws, the walker's pictures. */
export class WorldSettings {
  /** That the walker cannot begin where it starts; null where it can. */
  readonly store = createStore<{ readonly startFinding: Finding | null }>(() => ({ startFinding: null }));
  /** The drag of the start: where it is, and whether it went anywhere. */
  private drag: { at: Cell; moved: boolean; readonly stroke: string } | null = null;

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
  ) {}

  private readonly change = (how: (world: World) => World, stroke?: string): boolean =>
    this.project.changeWorld(how, stroke);

  /** Looks after each change whether the walker can begin. Gives back what stops it. */
  readonly followStart = (): (() => void) =>
    this.project.onProject((_, steps) => {
      // Of another world nothing is known yet.
      if (steps === null) this.store.setState({ startFinding: null });
      if (steps === null || steps.some(changesWorld)) void this.lookAtStart();
    });

  private readonly lookAtStart = async (): Promise<void> => {
    const { project } = this.project.store.getState();
    const answer = await this.project.simulationClient()?.startFinding();
    // What was asked of a world that is not the shown one any more is no answer.
    if (answer === undefined || this.project.store.getState().project !== project) return;
    this.store.setState({ startFinding: answer !== null && "refused" in answer ? null : answer });
  };

  readonly setName = (name: string): void => {
    const named = name.trim();
    if (named !== "") this.change((world) => ({ ...world, name: named }));
  };

  readonly setFrameRate = (frameRate: number, stroke?: string): void => {
    this.change((world) => ({ ...world, frameRate }), stroke);
  };

  /** Makes cells larger or smaller, and all that is in px with them; refused where it does not come out whole. */
  readonly setTileSize = (tileSize: number): boolean => {
    const { project } = this.project.store.getState();
    if (project === null || project.world.tileSize === tileSize) return true;
    const scaled: ScaledProject = scaleCells(project, tileSize);
    if ("fault" in scaled) {
      this.project.notice(`Cells keep ${project.world.tileSize} px: ${scaled.fault}.`);
      return false;
    }
    return this.project.change(() => scaled.project);
  };

  /** The pointer goes down on a cell: a drag of the start, if it is there. */
  readonly beginDrag = (cell: Cell): boolean => {
    const { room } = this.benchStore.getState();
    const { start } = this.project.store.getState().project!.world;
    if (start.room !== room || start.cell[0] !== cell.x || start.cell[1] !== cell.y) return false;
    this.drag = { at: cell, moved: false, stroke: crypto.randomUUID() };
    return true;
  };

  readonly moveDrag = (cell: Cell): void => {
    const { drag } = this;
    if (drag === null || (cell.x === drag.at.x && cell.y === drag.at.y)) return;
    const { room } = this.benchStore.getState();
    drag.at = cell;
    drag.moved = true;
    this.putStart(room, [cell.x, cell.y], drag.stroke);
  };

  /** The button goes up: one that was only clicked is turned. */
  readonly endDrag = (): void => {
    if (this.drag?.moved === false) this.change(turnStart);
    this.drag = null;
    this.project.endStroke();
  };

  /** Puts the start into a cell, as far as the room has it. */
  readonly putStart = (room: string, [x, y]: Pair, stroke?: string): void => {
    const there = this.project.store.getState().project?.world.rooms.find(({ id }) => id === room);
    if (there === undefined || x < 0 || y < 0 || x >= there.width || y >= there.height) return;
    this.change((world) => moveStart(world, room, [x, y]), stroke);
  };

  readonly faceStart = (facing: Facing): void => {
    this.change((world) => ({ ...world, start: { ...world.start, facing } }));
  };

  readonly setGoal = (goal: Goal | null): void => {
    this.change((world) => ({ ...world, goal }));
  };

  readonly setLives = (lives: number | null, stroke?: string): void => {
    this.change((world) => ({ ...world, lives }), stroke);
  };

  readonly setRespawnRestores = (respawnRestores: RespawnRestores): void => {
    this.change((world) => ({ ...world, respawnRestores }));
  };

  readonly setCamera = (part: Partial<Camera>, stroke?: string): void => {
    this.change((world) => ({ ...world, camera: { ...world.camera, ...part } }), stroke);
  };

  /** Adds a law, or takes another one's place; false where it is none. */
  readonly keepLaw = (text: string, replaces: number | null): boolean => {
    const world = this.project.store.getState().project?.world;
    const law = text.trim().replace(/ +/g, " ");
    if (world === undefined || invariantFault(world, law) !== null) return false;
    if (replaces === null && world.laws.length >= LIMITS.laws) {
      this.project.notice(`A world has at most ${LIMITS.laws} laws.`);
      return false;
    }
    return this.change((w) => ({
      ...w,
      laws: replaces === null ? [...w.laws, law] : w.laws.map((each, i) => (i === replaces ? law : each)),
    }));
  };

  readonly removeLaw = (at: number): void => {
    this.change((world) => ({ ...world, laws: world.laws.filter((_, i) => i !== at) }));
  };

  /** Gives the walker pictures out of a sheet. */
  readonly setFigure = (places: FigurePlaces, stroke?: string): void => {
    this.change((world) => ({ ...world, figure: figureOf(world, places, world.figure) }), stroke);
  };

  /** Moves the walker's pictures in its cell, in px. */
  readonly setFigureOffset = (offset: Pair, stroke?: string): void => {
    this.change((world) => (world.figure === null ? world : { ...world, figure: { ...world.figure, offset } }), stroke);
  };

  /** The walker is drawn as the page's own again. */
  readonly removeFigure = (): void => {
    this.change((world) => ({ ...world, figure: null }));
  };

  /** How many images the default rules go through. */
  readonly setPoseImages = (images: number): void => {
    this.change((world) => ({
      ...world,
      rules: world.rules.map((rules) =>
        rules.id === world.activeRules ? { ...rules, pose: { ...rules.pose, images } } : rules,
      ),
    }));
  };
}
