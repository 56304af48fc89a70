import { session } from "../page-session.ts";
import type { Project } from "@keen-pebble/core/edit";
import type { Explanation } from "@keen-pebble/core/simulate";
import type { Room, Rules, World } from "@keen-pebble/core/world";
import { onPaletteChange, palette } from "../look/palette.ts";
import type { BenchState } from "../session/bench/bench-store.ts";
import type { BodyHandle } from "./body-handles.ts";
import { bodyHandles } from "./body-handles.ts";
import { drawActors } from "./draw-actors.ts";
import { drawBrush } from "./draw-brush.ts";
import { drawBody, drawBump, drawGaps, drawStop, drawTested, drawVelocity } from "./draw-contact.ts";
import { cameraAt } from "./camera.ts";
import { drawFixtures, shownMemory } from "./draw-fixtures.ts";
import { drawCamera, drawClearance, drawGrid } from "./draw-overlays.ts";
import { Rulers, drawAxes, drawLegend } from "./draw-rulers.ts";
import { drawStart } from "./draw-start.ts";
import { drawWall } from "./draw-wall.ts";
import { drawSolid } from "./draw-solid.ts";
import { closedDoors } from "./fixture-looks.ts";
import { RoomPicture } from "./room-picture.ts";
import { TrailPainter } from "./trail-painter.ts";
import type { View } from "./view.ts";
import { fitView, zoomView } from "./view.ts";
import { drawWalkerPicture, onWalkerLoaded, walkerPicture } from "./walker-art.ts";
import type { WalkerRow } from "./walker-row.ts";
import { walkerRow } from "./walker-row.ts";

/** The cell cursor stays at least so far from the field's edges, in px of the screen. */
const SHOWN_WITHIN = 48;
/** Handles are shown while the pointer is this near to one, in px of the screen. */
const HANDLES_NEAR = 40;

/** What is painted: the room and the state of the Bench, its right and lower edge in px of the canvas. */
interface Scene {
  readonly c: CanvasRenderingContext2D;
  readonly state: BenchState;
  readonly project: Project;
  readonly room: Room;
  /** Px of the room a cell's side. */
  readonly size: number;
  readonly right: number;
  readonly bottom: number;
  readonly roomNumber: number;
}

/** Draws the field on its canvas whenever a store changed, once a frame of the screen at most. */
export class FieldPainter {
  private view: View = { zoom: 1, left: 0, top: 0 };
  private fitted = "";
  private picture: RoomPicture | null = null;
  private readonly trails = new TrailPainter();
  private asked = 0;
  /** The run that was drawn last. */
  private painted: BenchState["run"] = null;
  private readonly rulers = new Rulers();
  private readonly stops: (() => void)[];
  private width = 0;
  private height = 0;

  /** @param closeUp follows the walker from near, and draws nothing to work with */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly closeUp = false,
  ) {
    const ask = (): void => this.ask();
    const sizes = new ResizeObserver(() => this.resize());
    sizes.observe(canvas);
    // The picture of a change is there before the next one of the screen, not after it.
    const follow = (state: BenchState, before: BenchState): void =>
      state.run !== before.run && state.run?.changedAt != null ? this.paint() : this.ask();
    this.stops = [
      session.benchStore.subscribe(follow),
      session.project.store.subscribe(ask),
      session.sheets.store.subscribe(ask),
      onPaletteChange(ask),
      onWalkerLoaded(ask),
      () => sizes.disconnect(),
    ];
    this.resize();
  }

  /** Stops drawing. */
  stop(): void {
    for (const stop of this.stops) stop();
    cancelAnimationFrame(this.asked);
  }

  /** The room's pixel at a place on the canvas. */
  roomPixel(x: number, y: number): { x: number; y: number } {
    return {
      x: Math.floor((x - this.view.left) / this.view.zoom),
      y: Math.floor((y - this.view.top) / this.view.zoom),
    };
  }

  zoom(direction: 1 | -1, x: number, y: number): void {
    this.view = zoomView(this.view, direction, x, y);
    this.ask();
  }

  pan(dx: number, dy: number): void {
    this.view = { ...this.view, left: this.view.left + dx, top: this.view.top + dy };
    this.ask();
  }

  /** Brings a px of the room into view, if it is not. */
  show(x: number, y: number): void {
    const { zoom, left, top } = this.view;
    const by = (at: number, all: number): number =>
      at < SHOWN_WITHIN ? SHOWN_WITHIN - at : at > all - SHOWN_WITHIN ? all - SHOWN_WITHIN - at : 0;
    this.pan(by(left + x * zoom, this.width), by(top + y * zoom, this.height));
  }

  /** Shows the whole room. */
  fit(): void {
    this.fitted = "";
    this.ask();
  }

  /** Screen px a world px, for whoever shows it. */
  zoomNow(): number {
    return this.view.zoom;
  }

  private resize(): void {
    const { clientWidth, clientHeight } = this.canvas;
    const ratio = window.devicePixelRatio;
    this.width = clientWidth;
    this.height = clientHeight;
    this.canvas.width = Math.round(clientWidth * ratio);
    this.canvas.height = Math.round(clientHeight * ratio);
    this.fitted = "";
    this.ask();
  }

  private ask(): void {
    if (this.asked !== 0) return;
    this.asked = requestAnimationFrame(() => {
      this.asked = 0;
      this.paint();
    });
  }

  private paint(): void {
    const { project } = session.project.store.getState();
    const state = session.benchStore.getState();
    const room = project?.world.rooms.find((r) => r.id === state.room);
    const c = this.canvas.getContext("2d");
    if (!project || !room || !c || this.width === 0) return;
    const ratio = window.devicePixelRatio;
    c.setTransform(ratio, 0, 0, ratio, 0, 0);
    const colours = palette();
    c.fillStyle = colours.sunk;
    c.fillRect(0, 0, this.width, this.height);

    const { world } = project;
    const size = world.tileSize;
    const fitKey = `${world.id}/${room.id}/${room.width}x${room.height}`;
    if (this.fitted !== fitKey) {
      this.fitted = fitKey;
      this.view = fitView(room.width * size, room.height * size, this.width, this.height, size);
    }
    if (this.closeUp) this.view = closeView(room, size, walkerRow(state), this.width, this.height);
    const { zoom, left, top } = this.view;
    // Whoever measures on the picture, from outside too, has to know how it lies.
    const lies = `${zoom} ${left} ${top}`;
    if (this.canvas.dataset["view"] !== lies) this.canvas.dataset["view"] = lies;
    const right = left + room.width * size * zoom;
    const bottom = top + room.height * size * zoom;

    const scene: Scene = { c, state, project, room, size, right, bottom, roomNumber: world.rooms.indexOf(room) };
    this.paintRoom(scene, colours.lineStrong);
    this.paintWalker(scene);
    if (this.closeUp) return;
    this.paintAround(scene);
    if (state.run !== null && state.run !== this.painted && state.run.changedAt !== null)
      session.latency.notePicture(state.run.changedAt);
    this.painted = state.run;
  }

  /** The room, what stands in it, and the trails. */
  private paintRoom({ c, state, project, room, size, right, bottom, roomNumber }: Scene, edge: string): void {
    const { world } = project;
    const { zoom, left, top } = this.view;
    this.picture ??= new RoomPicture(world);
    this.picture.draw(c, world, room, zoom, left, top, this.width, this.height, session.sheets.store.getState().images);
    c.strokeStyle = edge;
    c.lineWidth = 1;
    c.strokeRect(left - 0.5, top - 0.5, right - left + 1, bottom - top + 1);
    drawClearance(c, state, room, size, this.view);
    if (state.overlays.grid) drawGrid(c, room, size, this.view);
    drawFixtures(c, world, room, state, this.view);
    if (state.overlays.solid)
      drawSolid(
        c,
        project,
        room,
        shownRules(state, project)?.walker.blockedBy ?? [],
        closedDoors(world, room.id, shownMemory(state)),
        this.view,
        this.width,
        this.height,
      );
    c.save();
    c.beginPath();
    c.rect(left, top, right - left, bottom - top);
    c.clip();
    const canvas = { width: this.width, height: this.height, ratio: window.devicePixelRatio };
    this.trails.paint(c, state, roomNumber, size, this.view, canvas);
    c.restore();
  }

  /** The walker, and why it does what it does in the shown frame. */
  private paintWalker({ c, state, project, room, size, right, bottom, roomNumber }: Scene): void {
    const { world } = project;
    const { overlays } = state;
    drawActors(c, world, room, state, this.view, session.sheets.store.getState().images);
    const row = walkerRow(state);
    const explanation = shownExplanation(state);
    const body = shownRules(state, project)?.walker.body ?? null;
    if (row === null || row.room !== roomNumber) return;
    if (body !== null) {
      if (overlays.body && explanation) drawTested(c, explanation, body, this.view, size);
      this.drawPicture(c, world, row);
      if (overlays.body) drawBody(c, body, row.x, row.y, this.view);
      if (explanation && overlays.velocity) drawVelocity(c, explanation, body, this.view);
      if (explanation && overlays.body) {
        drawGaps(c, explanation, body, this.view, size);
        drawBump(c, explanation, body, this.view);
        if (!this.closeUp) drawStop(c, explanation, world, this.view, this.width, this.height);
        if (!this.closeUp && state.walk === null)
          this.drawHandles(c, bodyHandles(body, row.x, row.y, this.view), state);
      }
    }
    if (overlays.camera)
      drawCamera(c, cameraAt(world.camera, room, row.rows, row.frame, size), state, right, bottom, this.view);
  }

  private drawPicture(c: CanvasRenderingContext2D, world: World, row: WalkerRow): void {
    const { zoom, left, top } = this.view;
    const picture = walkerPicture(world, session.sheets.store.getState().images, row.facing, row.pose);
    if (picture !== null) drawWalkerPicture(c, picture, left + row.x * zoom, top + row.y * zoom, zoom);
  }

  /** The pen's cells, rulers, legend and axes. */
  private paintAround({ c, state, project, room, size, right, bottom, roomNumber }: Scene): void {
    if (state.walk === null && this.picture !== null) drawBrush(c, project.world, room, this.picture, this.view);
    const { start } = project.world;
    // Where nothing walks yet, it is the only thing that says where the walker will stand.
    const shown = state.kit === "world" || state.run === null;
    if (shown && state.walk === null && start.room === room.id) {
      const middle = (cell: number): number => (cell + 0.5) * size * this.view.zoom;
      const [x, y] = [this.view.left + middle(start.cell[0]), this.view.top + middle(start.cell[1])];
      drawStart(c, project.world, x, y, size * this.view.zoom * 0.42);
    }
    const wall = session.walls.preview();
    if (wall !== null) drawWall(c, project.world, room, wall, this.view);
    const row = walkerRow(state);
    const occupied =
      row && row.room === roomNumber ? { x: Math.floor(row.x / size + 0.5), y: Math.floor(row.y / size + 0.5) } : null;
    this.rulers.draw(c, { view: this.view, room, size, occupied, width: this.width, height: this.height });
    drawLegend(
      c,
      Math.min(right, this.width - 12),
      Math.min(bottom + 17, this.height - 10),
      this.trails.scale,
      this.trails.ghostName(state),
    );
    drawAxes(c, this.view, this.width, this.height);
  }

  /** The body's handles, once the pointer is near: they would hide a small body. */
  private drawHandles(c: CanvasRenderingContext2D, handles: readonly BodyHandle[], { pointer }: BenchState): void {
    if (pointer === null) return;
    const { zoom, left, top } = this.view;
    const [x, y] = [left + pointer.x * zoom, top + pointer.y * zoom];
    if (!handles.some((handle) => Math.hypot(handle.x - x, handle.y - y) < HANDLES_NEAR)) return;
    for (const handle of handles) {
      c.fillStyle = "#fffdf6";
      c.fillRect(handle.x - 4, handle.y - 4, 8, 8);
      c.strokeStyle = palette().accent;
      c.lineWidth = 2;
      c.strokeRect(handle.x - 3, handle.y - 3, 6, 6);
    }
  }

  /** The handles of the shown body on the canvas; none where it is not shown. */
  handles(): BodyHandle[] {
    const { project } = session.project.store.getState();
    const state = session.benchStore.getState();
    const row = walkerRow(state);
    if (project === null || row === null || state.walk !== null || !state.overlays.body) return [];
    if (project.world.rooms[row.room]?.id !== state.room) return [];
    const body = shownRules(state, project)?.walker.body;
    return body === undefined ? [] : bodyHandles(body, row.x, row.y, this.view);
  }
}

/** The walker in the middle, twice as large as in the world; the room's edge is not passed. */
function closeView(room: Room, size: number, row: WalkerRow | null, width: number, height: number): View {
  const zoom = 2;
  const place = (at: number, all: number, across: number): number =>
    Math.round(
      all * zoom <= across
        ? (across - all * zoom) / 2
        : Math.min(0, Math.max(across - all * zoom, across / 2 - at * zoom)),
    );
  return {
    zoom,
    left: place((row?.x ?? 0) + size / 2, room.width * size, width),
    top: place((row?.y ?? 0) + size / 2, room.height * size, height),
  };
}

/** The rule set that the shown log or walk goes by. */
function shownRules(state: BenchState, { world }: Project): Rules | undefined {
  const named = state.walk?.log.rules ?? state.parsed?.rules ?? world.activeRules;
  return world.rules.find(({ id }) => id === named) ?? world.rules[0];
}

/** The explanation, if it is one of the shown frame. */
function shownExplanation(state: BenchState): Explanation | null {
  const { explanation, frame } = state;
  return explanation && explanation.frame === frame ? explanation : null;
}
