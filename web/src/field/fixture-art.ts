import type { Fixture, Item } from "@keen-pebble/core/world";

const SIDE = 16;
const INK = "#1c2124";

/** How a fixture looks now. */
export interface FixtureLook {
  readonly kind: Fixture["kind"];
  /** An open door, a switch whose circuit is on, a checkpoint that is the respawn place. */
  readonly on: boolean;
  /** Colour and role of the item that it gives or asks for. */
  readonly item: Pick<Item, "colour" | "role"> | null;
}

const pictures = new Map<string, OffscreenCanvas>();

/** Two looks with the same name are the same picture. */
export function lookName({ kind, on, item }: FixtureLook): string {
  return `${kind} ${on} ${item?.colour ?? ""} ${item?.role ?? ""}`;
}

/** The picture of a fixture, 16 by 16, drawn once for each look. */
export function fixturePicture(look: FixtureLook): OffscreenCanvas {
  const key = lookName(look);
  let picture = pictures.get(key);
  if (picture === undefined) {
    picture = new OffscreenCanvas(SIDE, SIDE);
    draw(picture.getContext("2d")!, look);
    pictures.set(key, picture);
  }
  return picture;
}

type Context = OffscreenCanvasRenderingContext2D;

function box(c: Context, colour: string, x: number, y: number, width: number, height: number): void {
  c.fillStyle = colour;
  c.fillRect(x, y, width, height);
}

/** Rows of characters as px: `.` nothing, the others by the colours given. */
function rows(c: Context, x: number, y: number, lines: readonly string[], colours: Readonly<Record<string, string>>): void {
  lines.forEach((line, dy) => [...line].forEach((ch, dx) => colours[ch] && box(c, colours[ch], x + dx, y + dy, 1, 1)));
}

const CRANK = ["kkkk......", "kcck......", "kcckkkk...", ".kccccck..", "..kkkkck..", ".....kck..", ".....kckkk", ".....kccck", "......kkkk"];
const BEAD = ["..kkkk..", ".kcccck.", "kcwcccck", "kcccccck", "kcccccck", "kcccccck", ".kcccck.", "..kkkk.."];
const PUFF = [".w..w...", "www.ww.w", ".ww..www", "..w.w.w."];

function draw(c: Context, { kind, on, item }: FixtureLook): void {
  const colour = item?.colour ?? "#8d7f6f";
  switch (kind) {
    case "item":
      if (item?.role === "treasure") rows(c, 4, 4, BEAD, { k: INK, c: colour, w: "#fffdf6" });
      else rows(c, 3, 4, CRANK, { k: INK, c: colour });
      return;
    case "door":
      if (on) {
        box(c, INK, 0, 0, 3, 16);
        box(c, INK, 13, 0, 3, 16);
        box(c, "#5c6a6c", 1, 0, 1, 16);
        box(c, "#5c6a6c", 14, 0, 1, 16);
        return;
      }
      box(c, INK, 0, 0, 16, 16);
      box(c, "#5c6a6c", 1, 1, 14, 14);
      for (const x of [3, 7, 11]) {
        box(c, "#39454a", x, 1, 2, 14);
        box(c, "#7f9091", x, 1, 1, 14);
      }
      box(c, INK, 4, 5, 8, 6);
      box(c, colour, 5, 6, 6, 4);
      box(c, INK, 7, 7, 2, 2);
      return;
    case "hazard":
      box(c, "#39454a", 2, 8, 12, 6);
      for (const x of [3, 6, 9, 12]) box(c, INK, x, 9, 1, 4);
      rows(c, 4, 3, PUFF, { w: "#fffdf6" });
      return;
    case "checkpoint":
      box(c, INK, 6, 9, 4, 6);
      box(c, "#8a6414", 7, 9, 2, 5);
      box(c, INK, 5, 3, 6, 7);
      box(c, on ? "#f3b945" : "#8f9a94", 6, 4, 4, 5);
      if (on) box(c, "#fff3c4", 7, 5, 2, 3);
      return;
    case "switch":
      c.strokeStyle = INK;
      c.lineWidth = 4;
      c.beginPath();
      c.arc(8, 8, 5, 0, 7);
      c.stroke();
      c.strokeStyle = on ? "#5fb7a5" : "#8f9a94";
      c.lineWidth = 2;
      c.stroke();
      box(c, INK, 7, 2, 2, 12);
      box(c, INK, 2, 7, 12, 2);
      box(c, on ? "#5fb7a5" : "#8f9a94", 6, 6, 4, 4);
      return;
    case "portal":
      box(c, INK, 1, 1, 14, 14);
      for (let step = 0; step < 4; step++) box(c, ["#d6cdb7", "#a79d87", "#776f5f", "#4b463c"][step]!, 3, 3 + step * 3, 10 - step, 2);
      return;
    case "marker":
      c.strokeStyle = INK;
      c.lineWidth = 3;
      c.beginPath();
      c.arc(8, 8, 5.5, 0, 7);
      c.stroke();
      c.strokeStyle = "#fffdf6";
      c.lineWidth = 1.5;
      c.setLineDash([3, 2]);
      c.stroke();
      box(c, "#c4491d", 7, 7, 2, 2);
  }
}
