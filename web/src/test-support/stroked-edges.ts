import type { TraceRows } from "@keen-pebble/core/simulate";
import { ARRIVE } from "@keen-pebble/core/world";

const WAYS = [
  [0, 0],
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;
/** Half a tile, in px, and a place that takes it back: lines go through what the rows say. */
export const HALF = 1;
export const PLACE = { zoom: 1, left: -HALF, top: -HALF };

/** A walk by one px a frame, held within four px each way: it often goes where it was. */
export function walked(keys: readonly number[], arrivals: readonly number[] = []): TraceRows {
  const x = [0];
  const y = [0];
  for (const key of keys) {
    const [dx, dy] = WAYS[key]!;
    x.push(Math.min(4, Math.max(0, x.at(-1)! + dx)));
    y.push(Math.min(4, Math.max(0, y.at(-1)! + dy)));
  }
  const units = (px: number[]): Int32Array => Int32Array.from(px, (each) => each * 256);
  return {
    count: x.length,
    x: units(x),
    y: units(y),
    room: new Uint8Array(x.length),
    events: Int32Array.from(arrivals.flatMap((frame) => [frame, ARRIVE, 0])),
  } as unknown as TraceRows;
}

/** A name for the px-long edge between two places. */
export const edge = (ax: number, ay: number, bx: number, by: number): string =>
  `${Math.min(ax, bx)},${Math.min(ay, by)} ${ax === bx ? "down" : "right"}`;

/** A canvas that knows of each stroked edge in which style it is seen; strokes are named by their steps of colour. */
export class EdgeCanvas {
  readonly edges = new Map<string, number>();
  /** Lines that were stroked. */
  lines = 0;
  strokeStyle = "";
  private path: string[] = [];
  private at: readonly [number, number] = [0, 0];

  getContext(): this {
    return this;
  }

  drawImage(picture: EdgeCanvas): void {
    for (const [each, step] of picture.edges) this.edges.set(each, step);
  }

  beginPath(): void {
    this.path = [];
  }

  moveTo(x: number, y: number): void {
    this.at = [Math.round(x), Math.round(y)];
  }

  lineTo(toX: number, toY: number): void {
    this.lines++;
    const [x, y] = [Math.round(toX), Math.round(toY)];
    const [dx, dy] = [Math.sign(x - this.at[0]), Math.sign(y - this.at[1])];
    for (let [ax, ay] = this.at; ax !== x || ay !== y; [ax, ay] = [ax + dx, ay + dy])
      this.path.push(edge(ax, ay, ax + dx, ay + dy));
  }

  stroke(): void {
    for (const each of this.path) this.edges.set(each, Number(this.strokeStyle));
  }

  save(): void {}
  restore(): void {}
  setTransform(): void {}
}
