import type { Remembered } from "@keen-pebble/core/simulate";
import type { Room, World } from "@keen-pebble/core/world";
import { sizeOf } from "@keen-pebble/core/world";
import { threadsOf } from "@keen-pebble/core/edit";
import { palette } from "../look/palette.ts";
import type { BenchState } from "../session/bench/bench-store.ts";
import { fixturePicture } from "./fixture-art.ts";
import { shownFixtures } from "./fixture-looks.ts";
import type { View } from "./view.ts";

/** What is remembered in the shown frame; null where nothing is run. */
export function shownMemory(state: BenchState): Remembered | null {
  return state.run === null && state.walk === null ? null : (state.explanation?.remembered ?? null);
}

/** The room's fixtures as they are in the shown frame, the chosen ones framed; what is gone stays as an outline. */
export function drawFixtures(
  c: CanvasRenderingContext2D,
  world: World,
  room: Room,
  state: BenchState,
  view: View,
): void {
  const { zoom, left, top } = view;
  const step = world.tileSize * zoom;
  c.imageSmoothingEnabled = false;
  for (const { fixture, look, gone } of shownFixtures(world, room.id, shownMemory(state))) {
    const x = left + fixture.cell[0] * step;
    const y = top + fixture.cell[1] * step;
    c.globalAlpha = gone ? 0.28 : 1;
    const [across, down] = sizeOf(fixture);
    for (let n = 0; n < across * down; n++)
      c.drawImage(fixturePicture(look), x + (n % across) * step, y + Math.floor(n / across) * step, step, step);
    c.globalAlpha = 1;
    if (!state.fixtures.includes(fixture.id) || state.walk !== null) continue;
    c.strokeStyle = "#fffdf6";
    c.lineWidth = 4;
    c.strokeRect(x - 1, y - 1, across * step + 2, down * step + 2);
    c.strokeStyle = palette().accent;
    c.lineWidth = 2;
    c.strokeRect(x - 1, y - 1, across * step + 2, down * step + 2);
  }
  if (state.walk === null) drawThreads(c, world, room, state, view);
}

/** Threads from what opens a door to the door, and from a portal to where it leads, while an end is chosen. */
function drawThreads(
  c: CanvasRenderingContext2D,
  world: World,
  room: Room,
  { fixtures }: BenchState,
  { zoom, left, top }: View,
): void {
  const step = world.tileSize * zoom;
  const middle = ([x, y]: readonly [number, number]) => [left + (x + 0.5) * step, top + (y + 0.5) * step] as const;
  const place = (id: string) => room.fixtures.find((fixture) => fixture.id === id);
  const thread = (from: readonly [number, number], to: readonly [number, number], dotted: boolean): void => {
    const [x0, y0] = middle(from);
    const [x1, y1] = middle(to);
    for (const [colour, width] of [
      ["#fffdf6", 5],
      [palette().ochre, 2],
    ] as const) {
      c.strokeStyle = colour;
      c.lineWidth = width;
      c.setLineDash(dotted ? [2, 6] : []);
      c.lineCap = "round";
      c.beginPath();
      c.moveTo(x0, y0);
      c.quadraticCurveTo((x0 + x1) / 2, Math.min(y0, y1) - step, x1, y1);
      c.stroke();
    }
    c.setLineDash([]);
    c.fillStyle = palette().ochre;
    c.beginPath();
    c.arc(x1, y1, 4, 0, 7);
    c.fill();
  };
  for (const id of fixtures) {
    for (const { from, to } of threadsOf(world, id)) {
      const [one, other] = [place(from), place(to)];
      if (one && other) thread(one.cell, other.cell, false);
    }
    const portal = place(id);
    if (portal?.kind === "portal" && portal.to.room === room.id) thread(portal.cell, portal.to.cell, true);
  }
}
