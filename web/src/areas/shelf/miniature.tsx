import type { World } from "@keen-pebble/core/world";
import { useEffect, useRef } from "react";
import { RoomPicture } from "../../field/room-picture.ts";
import { makeTrail, strokeTrail } from "../../field/trail.ts";
import { drawPebble } from "../../look/draw-pebble.ts";
import { onPaletteChange, palette } from "../../look/palette.ts";
import type { ShelfPicture } from "../../session/shelf/shelf-pictures.ts";

const MARGIN = 8;
const GAP = 12;

/** A world's rooms where its plan has them, with the way of one log through them. */
export function Miniature({ picture: made }: { readonly picture: ShelfPicture | null }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!made) return;
    const again = (): void => draw(canvas.current!, made);
    again();
    return onPaletteChange(again);
  }, [made]);
  return <canvas ref={canvas} className="miniature" width={500} height={320} aria-hidden="true" />;
}

function draw(canvas: HTMLCanvasElement, { project: { world }, images, path }: ShelfPicture): void {
  const { width, height } = canvas;
  const c = canvas.getContext("2d")!;
  c.clearRect(0, 0, width, height);
  const places = roomPlaces(world);
  const left = Math.min(...places.map((p) => p.x));
  const top = Math.min(...places.map((p) => p.y));
  const across = Math.max(...places.map((p) => p.x + p.width)) - left;
  const down = Math.max(...places.map((p) => p.y + p.height)) - top;
  const fitting = Math.min((width - 2 * MARGIN) / across, (height - 2 * MARGIN) / down, 3);
  const zoom = fitting >= 1 ? Math.floor(fitting) : fitting;
  const at = (place: Place) => ({
    zoom,
    left: Math.round((width - across * zoom) / 2 + (place.x - left) * zoom),
    top: Math.round((height - down * zoom) / 2 + (place.y - top) * zoom),
  });
  const picture = new RoomPicture(world, images);
  places.forEach((place, i) => {
    const spot = at(place);
    picture.draw(c, world, world.rooms[i]!, zoom, spot.left, spot.top, width, height);
  });
  if (path === null) return;
  const { rows, frame, fails } = path;
  const half = world.tileSize / 2;
  const colours = palette();
  c.lineCap = "round";
  c.lineJoin = "round";
  for (const [stroke, thick] of [
    [colours.ink, 7],
    [colours.accent, 4],
  ] as const) {
    c.strokeStyle = stroke;
    c.lineWidth = thick;
    places.forEach((place, room) => strokeTrail(c, makeTrail(rows, room, half), at(place), 0, frame, null));
  }
  const spotOf = (row: number): { x: number; y: number } => {
    const place = at(places[rows.room[row]!]!);
    return { x: place.left + (rows.x[row]! / 256 + half) * zoom, y: place.top + (rows.y[row]! / 256 + half) * zoom };
  };
  const start = spotOf(0);
  c.beginPath();
  c.arc(start.x, start.y, 6, 0, 2 * Math.PI);
  c.fillStyle = colours.paper;
  c.fill();
  c.lineWidth = 3;
  c.strokeStyle = colours.ink;
  c.stroke();
  const end = spotOf(Math.min(frame, rows.count - 1));
  c.beginPath();
  c.arc(end.x, end.y, 12, 0, 2 * Math.PI);
  c.fillStyle = colours.paper;
  c.fill();
  drawPebble(c, fails ? "fail" : "pass", end.x, end.y, 9, colours);
}

interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where each room is drawn, in px: where the plan puts it, or side by side where the plan lays rooms over each other. */
function roomPlaces({ rooms, tileSize }: World): Place[] {
  const planned = rooms.map((room) => ({
    x: room.plan[0] * tileSize,
    y: room.plan[1] * tileSize,
    width: room.width * tileSize,
    height: room.height * tileSize,
  }));
  const overlap = planned.some((a, i) =>
    planned.some(
      (b, n) => n > i && a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height,
    ),
  );
  if (!overlap) return planned;
  let x = 0;
  return planned.map((place) => {
    const put = { ...place, x, y: 0 };
    x += place.width + GAP;
    return put;
  });
}
