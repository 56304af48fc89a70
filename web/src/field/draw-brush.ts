import { drawActor } from "./draw-actors.ts";
import type { Room, World } from "@keen-pebble/core/world";
import { sizeOf } from "@keen-pebble/core/world";
import { palette } from "../look/palette.ts";
import { session } from "../page-session.ts";
import type { Rect } from "../session/bench/paint-cells.ts";
import type { Piece } from "../session/bench/piece.ts";
import { fixturePicture } from "./fixture-art.ts";
import { lookOf } from "./fixture-looks.ts";
import type { RoomPicture } from "./room-picture.ts";
import type { View } from "./view.ts";

/** What the pointer would paint, the rectangle that is chosen, and the piece that is being laid. */
export function drawBrush(
  c: CanvasRenderingContext2D,
  world: World,
  room: Room,
  picture: RoomPicture,
  view: View,
): void {
  const { cursor, laying, piece, pointer, selection } = session.benchStore.getState();
  const shown = session.painting.preview();
  if (laying && piece !== null && shown?.rects[0]) drawPiece(c, world, piece, shown.rects[0], picture, view);
  const { zoom, left, top } = view;
  const step = world.tileSize * zoom;
  c.lineJoin = "miter";
  c.lineWidth = 2;
  if (shown !== null) {
    c.fillStyle = "rgba(255, 253, 246, 0.45)";
    for (const cell of shown.cells)
      c.fillRect(left + (cell % room.width) * step, top + Math.floor(cell / room.width) * step, step, step);
    for (const rect of shown.rects) {
      c.strokeStyle = "#fffdf6";
      c.strokeRect(left + rect.x * step - 1, top + rect.y * step - 1, rect.width * step + 2, rect.height * step + 2);
      c.strokeStyle = palette().accent;
      c.strokeRect(left + rect.x * step + 1, top + rect.y * step + 1, rect.width * step - 2, rect.height * step - 2);
    }
  }
  if (cursor !== "none" && pointer !== null) {
    const corner = (at: number): number => Math.floor(at / world.tileSize) * step;
    drawCursor(c, left + corner(pointer.x), top + corner(pointer.y), step, cursor === "held");
  }
  if (selection === null) return;
  const { x, y, width, height } = selection;
  const at = [left + x * step + 1, top + y * step + 1, width * step - 2, height * step - 2] as const;
  c.strokeStyle = "#1c2124";
  c.strokeRect(...at);
  c.strokeStyle = "#fffdf6";
  c.setLineDash([6, 4]);
  c.strokeRect(...at);
  c.setLineDash([]);
}

/** The cell cursor: four corners; filled where the tool is held down. */
function drawCursor(c: CanvasRenderingContext2D, x: number, y: number, step: number, held: boolean): void {
  const arm = step / 3;
  c.beginPath();
  for (const [cx, cy, dx, dy] of [
    [x, y, 1, 1],
    [x + step, y, -1, 1],
    [x, y + step, 1, -1],
    [x + step, y + step, -1, -1],
  ] as const) {
    c.moveTo(cx + dx * arm, cy);
    c.lineTo(cx, cy);
    c.lineTo(cx, cy + dy * arm);
  }
  c.strokeStyle = "#1c2124";
  c.lineWidth = 6;
  c.stroke();
  c.strokeStyle = held ? palette().accent : "#fffdf6";
  c.lineWidth = 3;
  c.stroke();
}

/** The piece as it would lie: its tiles, then its fixtures and actors. */
function drawPiece(
  c: CanvasRenderingContext2D,
  world: World,
  piece: Piece,
  corner: Rect,
  picture: RoomPicture,
  { zoom, left, top }: View,
): void {
  const step = world.tileSize * zoom;
  const numbers = new Map(world.tiles.map((tile, i) => [tile.id, i]));
  const draw = (image: CanvasImageSource, x: number, y: number): void =>
    c.drawImage(image, left + (corner.x + x) * step, top + (corner.y + y) * step, step, step);
  c.globalAlpha = 0.8;
  piece.tiles.forEach((id, i) => {
    const tile = numbers.get(id);
    if (tile !== undefined) draw(picture.tilePicture(tile), i % piece.width, Math.floor(i / piece.width));
  });
  for (const fixture of piece.fixtures) {
    const [across, down] = sizeOf(fixture);
    const image = fixturePicture(lookOf(world, fixture, null, 0));
    for (let n = 0; n < across * down; n++)
      draw(image, fixture.cell[0] + (n % across), fixture.cell[1] + Math.floor(n / across));
  }
  const images = session.sheets.store.getState().images;
  for (const actor of piece.actors) {
    const [x, y] = [left + (corner.x + actor.cell[0]) * step, top + (corner.y + actor.cell[1]) * step];
    drawActor(c, world, { actor, facing: actor.facing, x: 0, y: 0 }, x, y, step, images);
  }
  c.globalAlpha = 1;
}
