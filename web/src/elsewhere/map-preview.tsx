import { useEffect, useRef } from "react";
import { RoomPicture } from "../field/room-picture.ts";
import type { MapRead } from "../session/elsewhere/read-map.ts";

const WIDTH = 620;
const HEIGHT = 480;

interface Props {
  readonly read: MapRead;
  readonly images: ReadonlyMap<string, ImageBitmap>;
  /** Told the kind of the cell that was clicked. */
  readonly onCell: (value: number) => void;
}

/** The room as it will be; cells that block are marked. A click on a cell says that its kind blocks. */
export function MapPreview({ read, images, onCell }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { room, world, grid } = read;
  const cell = Math.min(WIDTH / room.width, HEIGHT / room.height, world.tileSize * 3);
  useEffect(() => draw(canvas.current!, read, images, cell), [read, images, cell]);
  return (
    <canvas
      ref={canvas}
      width={Math.max(1, Math.round(room.width * cell))}
      height={Math.max(1, Math.round(room.height * cell))}
      role="img"
      aria-label={`The room: ${room.width} x ${room.height} cells; the list beside it says which kinds block`}
      onClick={(event) => {
        const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
        const x = Math.floor(((event.clientX - left) / width) * room.width);
        const y = Math.floor(((event.clientY - top) / height) * room.height);
        const value = grid.values[y * room.width + x];
        if (value !== undefined) onCell(value);
      }}
    />
  );
}

function draw(canvas: HTMLCanvasElement, read: MapRead, images: Props["images"], cell: number): void {
  const { room, world, grid, answers } = read;
  const c = canvas.getContext("2d")!;
  c.clearRect(0, 0, canvas.width, canvas.height);
  new RoomPicture(world).draw(c, world, room, cell / world.tileSize, 0, 0, canvas.width, canvas.height, images);
  c.fillStyle = "rgba(196, 73, 29, 0.38)";
  grid.values.forEach((value, i) => {
    if (!answers.solid.has(value)) return;
    const [x, y] = [i % room.width, Math.floor(i / room.width)];
    c.fillRect(x * cell, y * cell, cell, cell);
  });
  const { start } = world;
  if (start.room !== room.id) return;
  c.strokeStyle = "#fffdf6";
  c.lineWidth = 2;
  c.strokeRect(start.cell[0] * cell + 1, start.cell[1] * cell + 1, cell - 2, cell - 2);
}
