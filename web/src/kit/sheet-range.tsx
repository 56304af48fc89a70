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
  /** What is chosen, for those who do not see it. */
  readonly name: string;
  /** One place is chosen, not a rectangle of them. */
  readonly single?: boolean;
  readonly onChoose: (at: Pair, size: Pair, stroke?: string) => void;
  /** The button goes up. */
  readonly onChosen?: () => void;
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as const;

/** A sheet with a rectangle of its places framed: dragged over, or moved by the arrow keys, with Shift made larger or smaller. */
export function SheetRange({ image, sheet, chosen, name, single = false, onChoose, onChosen }: Props) {
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
    const to = placeAt(event);
    const { stroke } = drag.current;
    const from = single ? to : drag.current.from;
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
      aria-label={`${name}: ${rangeText(chosen, single)}; arrow keys move ${single ? "it" : "them, with Shift they make more or fewer"}`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { from: placeAt(event), stroke: crypto.randomUUID() };
        span(event);
      }}
      onPointerMove={span}
      onPointerUp={() => {
        drag.current = null;
        onChosen?.();
      }}
      onKeyDown={(event) => {
        const by = ARROWS[event.key as keyof typeof ARROWS];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        const { at, size }: Range = chosen ?? { at: [0, 0], size: [1, 1] };
        if (event.shiftKey && !single)
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

function rangeText(range: Range | null, single: boolean): string {
  if (range === null) return "none yet";
  if (single) return `column ${range.at[0]}, row ${range.at[1]}`;
  const [columns, rows] = range.size;
  return `${columns} across and ${rows} down from column ${range.at[0]}, row ${range.at[1]}`;
}
