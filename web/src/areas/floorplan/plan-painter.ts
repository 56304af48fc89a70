import { seamsOf } from "@keen-pebble/core/edit";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import type { Trail } from "../../field/trail.ts";
import { makeTrail } from "../../field/trail.ts";
import { RoomPicture } from "../../field/room-picture.ts";
import { onPaletteChange, palette } from "../../look/palette.ts";
import { session } from "../../page-session.ts";
import type { PlanInput } from "./draw-plan.ts";
import { drawPlan } from "./draw-plan.ts";
import type { PlanView } from "./plan-view.ts";
import { fitPlan } from "./plan-view.ts";

/** What a plan shows besides the rooms, and the stores whose changes change it. */
export interface PlanShows {
  readonly stores: readonly { readonly subscribe: (listener: () => void) => () => void }[];
  readonly what: () => Pick<PlanInput, "chosen" | "rows" | "frame" | "remembered" | "linking" | "over" | "cursor">;
}

/** Draws the plan on its canvas whenever a store changed, once a frame of the screen at most. */
export class PlanPainter {
  view: PlanView = { cell: 1, left: 0, top: 0 };
  private fitted = "";
  private asked = 0;
  private picture: RoomPicture | null = null;
  /** The trails of the run that was drawn last. */
  private trails: {
    readonly rows: TraceRows | null;
    readonly world: World;
    readonly value: readonly Trail[];
  } | null = null;
  private seams: { readonly world: object; readonly value: ReturnType<typeof seamsOf> } | null = null;
  private readonly stops: (() => void)[];

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly shows: PlanShows,
  ) {
    const ask = (): void => this.ask();
    const sizes = new ResizeObserver(() => this.fit());
    sizes.observe(canvas);
    this.stops = [
      ...shows.stores.map((store) => store.subscribe(ask)),
      session.project.store.subscribe(ask),
      session.sheets.store.subscribe(ask),
      onPaletteChange(ask),
      () => sizes.disconnect(),
    ];
  }

  stop(): void {
    for (const stop of this.stops) stop();
    cancelAnimationFrame(this.asked);
  }

  fit(): void {
    this.fitted = "";
    this.ask();
  }

  show(view: PlanView): void {
    this.view = view;
    this.ask();
  }

  ask(): void {
    if (this.asked !== 0) return;
    this.asked = requestAnimationFrame(() => {
      this.asked = 0;
      this.paint();
    });
  }

  private paint(): void {
    const world = session.project.store.getState().project?.world;
    const { clientWidth: width, clientHeight: height } = this.canvas;
    const c = this.canvas.getContext("2d");
    if (world === undefined || c === null || width === 0) return;
    const ratio = window.devicePixelRatio;
    const [across, down] = [Math.round(width * ratio), Math.round(height * ratio)];
    if (this.canvas.width !== across || this.canvas.height !== down) {
      this.canvas.width = across;
      this.canvas.height = down;
    }
    c.setTransform(ratio, 0, 0, ratio, 0, 0);
    const key = `${world.id}/${world.rooms.length}/${width}x${height}`;
    if (this.fitted !== key) {
      this.fitted = key;
      this.view = fitPlan(world, width, height);
    }
    this.picture ??= new RoomPicture(world);
    if (this.seams?.world !== world) this.seams = { world, value: seamsOf(world) };
    const shown = this.shows.what();
    if (this.trails?.rows !== shown.rows || this.trails.world !== world)
      this.trails = { rows: shown.rows, world, value: trailsOf(shown.rows, world) };
    drawPlan(
      c,
      {
        world,
        seams: this.seams.value,
        picture: this.picture,
        images: session.sheets.store.getState().images,
        trails: this.trails.value,
        ...shown,
      },
      this.view,
      width,
      height,
      palette(),
    );
  }
}

const trailsOf = (rows: TraceRows | null, { rooms, tileSize }: World): Trail[] =>
  rows === null ? [] : rooms.map((_, number) => makeTrail(rows, number, tileSize / 2));
