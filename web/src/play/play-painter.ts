import type { Fixture, World } from "@keen-pebble/core/world";
import { FACINGS, sizeOf } from "@keen-pebble/core/world";
import { cameraAt } from "../field/camera.ts";
import { actorsOfRow, drawActor } from "../field/draw-actors.ts";
import { fixturePicture } from "../field/fixture-art.ts";
import { shownFixtures } from "../field/fixture-looks.ts";
import { RoomPicture } from "../field/room-picture.ts";
import type { SheetImages } from "../field/tile-art.ts";
import { drawWalkerPicture, walkerPicture } from "../field/walker-art.ts";
import type { Game } from "./game.ts";

/** Below this cells could not be told apart; then as many whole device pixels as fit make a cell. */
const LEAST_WHOLE = 2;

/** How the camera's picture lies on the canvas, in px of the screen; `zoom` screen px a world px. */
export interface PlayView {
  readonly zoom: number;
  /** Where the room's corner lies. */
  readonly left: number;
  readonly top: number;
}

/** Draws what the player sees of a game: the camera's part of the room, as large as it fits, and nothing to work with. */
export class PlayPainter {
  private readonly picture: RoomPicture;
  view: PlayView = { zoom: 1, left: 0, top: 0 };

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly game: Game,
    private readonly images: SheetImages,
  ) {
    this.picture = new RoomPicture(game.world, images);
  }

  paint(): void {
    const c = this.canvas.getContext("2d");
    const { clientHeight: height, clientWidth: width } = this.canvas;
    if (c === null || width === 0) return;
    const ratio = window.devicePixelRatio;
    if (this.canvas.width !== Math.round(width * ratio) || this.canvas.height !== Math.round(height * ratio)) {
      this.canvas.width = Math.round(width * ratio);
      this.canvas.height = Math.round(height * ratio);
    }
    c.setTransform(ratio, 0, 0, ratio, 0, 0);
    c.fillStyle = "#14171a";
    c.fillRect(0, 0, width, height);
    const { game } = this;
    const { world } = game;
    const rows = game.rows();
    const frame = rows.count - 1;
    const seen = cameraAt(world.camera, game.room, rows, frame, world.tileSize);
    const zoom = zoomOf(Math.min(width / seen.width, height / seen.height), world.tileSize);
    const left = Math.round((width - seen.width * zoom) / 2);
    const top = Math.round((height - seen.height * zoom) / 2);
    this.view = { zoom, left: left - seen.x * zoom, top: top - seen.y * zoom };
    c.save();
    c.beginPath();
    c.rect(left, top, seen.width * zoom, seen.height * zoom);
    c.clip();
    this.picture.draw(c, world, game.room, zoom, this.view.left, this.view.top, width, height, this.images);
    this.paintFixtures(c);
    this.paintWhoWalks(c);
    c.restore();
  }

  private paintFixtures(c: CanvasRenderingContext2D): void {
    const { world } = this.game;
    const { zoom, left, top } = this.view;
    const side = world.tileSize * zoom;
    c.imageSmoothingEnabled = false;
    for (const { fixture, gone, look } of shownFixtures(world, this.game.room.id, this.game.remembered)) {
      if (gone || (fixture.kind === "marker" && !isGoal(world, fixture))) continue;
      const [across, down] = sizeOf(fixture);
      for (let n = 0; n < across * down; n++)
        c.drawImage(
          fixturePicture(look),
          left + (fixture.cell[0] + (n % across)) * side,
          top + (fixture.cell[1] + Math.floor(n / across)) * side,
          side,
          side,
        );
    }
  }

  private paintWhoWalks(c: CanvasRenderingContext2D): void {
    const { world } = this.game;
    const { zoom, left, top } = this.view;
    const rows = this.game.rows();
    const frame = rows.count - 1;
    if (rows.actors !== null)
      for (const actor of actorsOfRow(world, rows.actors, frame))
        drawActor(c, world, actor, left + actor.x * zoom, top + actor.y * zoom, world.tileSize * zoom, this.images);
    const picture = walkerPicture(world, this.images, FACINGS[rows.facing[frame]!]!, rows.pose[frame]!);
    // Whoever looks at the picture from outside has to know where the walker is.
    this.canvas.dataset["walker"] = `${this.game.room.id} ${rows.x[frame]! / 256} ${rows.y[frame]! / 256}`;
    if (picture !== null)
      drawWalkerPicture(c, picture, left + (rows.x[frame]! / 256) * zoom, top + (rows.y[frame]! / 256) * zoom, zoom);
  }
}

/** What marks a place is for whoever builds the game, but for the goal. */
const isGoal = ({ goal }: World, { id }: Fixture): boolean => goal?.kind === "marker" && goal.fixture === id;

/** The largest zoom at which all fits: a whole one where that is large enough, else cells of whole px. */
function zoomOf(most: number, tileSize: number): number {
  if (most >= LEAST_WHOLE) return Math.floor(most);
  return Math.max(1, Math.floor(most * tileSize)) / tileSize;
}
