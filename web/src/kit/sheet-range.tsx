import { sheetTiles } from "@keen-pebble/core/formats";
import type { Pair, Sheet } from "@keen-pebble/core/world";
import { useEffect, useRef } from "react";
import { drawSheet, sheetZoom } from "./draw-sheet.ts";

interface Range {
  readonly at: Pair;
  readonly size: Pair;
}

interface Props {
  readonly image: ImageBitmap;
  readonly sheet: Sheet;
  readonly chosen: Range | null;
  readonly onChoose: (at: Pair, size: Pair, stroke?: string) => void;
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as const;

/** A sheet with a rectangle of its places framed: dragged over, or moved by the arrow keys, with Shift made larger or smaller. */
export function SheetRange({ image, sheet, chosen, onChoose }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drag = useRef<{ readonly from: Pair; readonly stroke: string } | null>(null);
  const zoom = sheetZoom(image);
  const { across, down } = sheetTiles(image.width, image.height, sheet);
  useEffect(() => drawSheet(canvas.current!, image, sheet, chosen, zoom), [image, sheet, chosen, zoom]);
  const placeAt = (event: React.PointerEvent<HTMLCanvasElement>): Pair => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    const place = (share: number, side: number, count: number): number =>
      within(Math.floor((share * side - sheet.margin) / (sheet.tile + sheet.spacing)), count);
    return [
      place((event.clientX - left) / width, image.width, across),
      place((event.clientY - top) / height, image.height, down),
    ];
  };
  const span = (event: React.PointerEvent<HTMLCanvasElement>): void => {
    if (drag.current === null) return;
    const [{ from, stroke }, to] = [drag.current, placeAt(event)];
    const at: Pair = [Math.min(from[0], to[0]), Math.min(from[1], to[1])];
    onChoose(at, [Math.abs(from[0] - to[0]) + 1, Math.abs(from[1] - to[1]) + 1], stroke);
  };
  return (
    <canvas
      ref={canvas}
      className="sheet"
      width={Math.round(image.width * zoom)}
      height={Math.round(image.height * zoom)}
      tabIndex={0}
      role="button"
      aria-label={`Places of the walker: ${rangeText(chosen)}; arrow keys move them, with Shift they make more or fewer`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { from: placeAt(event), stroke: crypto.randomUUID() };
        span(event);
      }}
      onPointerMove={span}
      onPointerUp={() => (drag.current = null)}
      onKeyDown={(event) => {
        const by = ARROWS[event.key as keyof typeof ARROWS];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        const { at, size }: Range = chosen ?? { at: [0, 0], size: [1, 1] };
        if (event.shiftKey)
          onChoose(at, [
            within(size[0] - 1 + by[0], across - at[0]) + 1,
            within(size[1] - 1 + by[1], down - at[1]) + 1,
          ]);
        else onChoose([within(at[0] + by[0], across - size[0] + 1), within(at[1] + by[1], down - size[1] + 1)], size);
      }}
    />
  );
}

const within = (n: number, count: number): number => Math.min(Math.max(n, 0), Math.max(count - 1, 0));

function rangeText(range: Range | null): string {
  if (range === null) return "none yet";
  const [columns, rows] = range.size;
  return `${columns} across and ${rows} down from column ${range.at[0]}, row ${range.at[1]}`;
}
