import { ghostRows } from "@keen-pebble/core/analyse";
import type { GameTrace } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { useEffect, useRef } from "react";
import { RoomPicture } from "../field/room-picture.ts";
import { makeTrail, strokeTrail } from "../field/trail.ts";
import { palette } from "../look/palette.ts";
import { useProject } from "../use-session.ts";

const WIDTH = 300;
const HEIGHT = 220;

/** A game's walk over the room that it begins in: whether it goes along the floor says whether it is read rightly. */
export function PathPreview({ trace }: { readonly trace: GameTrace }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const world = useProject((state) => state.project?.world ?? null);
  const room = world?.rooms[trace.rooms[0] ?? 0];
  useEffect(() => {
    if (world !== null) draw(canvas.current!, world, trace);
  }, [world, trace]);
  return (
    <figure className="path-preview">
      <canvas ref={canvas} width={WIDTH * 2} height={HEIGHT * 2} role="img" aria-label="The walk over the room" />
      <figcaption className="quiet small">{room?.name}: the walk begins at the ring</figcaption>
    </figure>
  );
}

function draw(canvas: HTMLCanvasElement, world: World, trace: GameTrace): void {
  const number = trace.rooms[0] ?? 0;
  const room = world.rooms[number]!;
  const [across, down] = [room.width * world.tileSize, room.height * world.tileSize];
  const c = canvas.getContext("2d")!;
  const zoom = Math.min(canvas.width / across, canvas.height / down, 4);
  const place = { zoom, left: (canvas.width - across * zoom) / 2, top: (canvas.height - down * zoom) / 2 };
  c.clearRect(0, 0, canvas.width, canvas.height);
  new RoomPicture(world).draw(c, world, room, zoom, place.left, place.top, canvas.width, canvas.height);
  const colours = palette();
  const half = world.tileSize / 2;
  const trail = makeTrail(ghostRows(trace), number, half);
  c.lineJoin = "round";
  c.lineCap = "round";
  for (const [stroke, thick] of [
    [colours.ink, 8],
    [colours.paper, 5],
  ] as const) {
    c.strokeStyle = stroke;
    c.lineWidth = thick;
    strokeTrail(c, trail, place, 0, Infinity, null);
  }
  if (trace.count === 0) return;
  const at = (units: number, from: number): number => from + (units / 256 + half) * zoom;
  c.beginPath();
  c.arc(at(trace.x[0]!, place.left), at(trace.y[0]!, place.top), 9, 0, 2 * Math.PI);
  c.fillStyle = colours.paper;
  c.fill();
  c.strokeStyle = colours.ink;
  c.lineWidth = 3;
  c.stroke();
}
