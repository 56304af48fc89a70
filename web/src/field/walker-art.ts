import type { Facing } from "@keen-pebble/core";

// The lamp-tender, drawn on 16 by 16: hood c, shade s, face f, lamp y and w, outline k.
const PALETTE: Readonly<Record<string, string>> = { k: "#1c2124", c: "#f2e8cf", s: "#c9b98f", f: "#c98d68", y: "#f3b945", w: "#fff3c4" };

const SIDE = [
  "......kkkk......",
  "....kkcccck.....",
  "...kccccccck....",
  "...kccccckkk....",
  "..kcccckfffk....",
  "..kccckffkfk....",
  "..kscckfffff....",
  "...kscckfffk.kk.",
  "...kkssckkk.kyyk",
  "..kccccccckkywwk",
  "..kcscccccffywyk",
  "..kcsccsck.kyyk.",
  "..kcsccsck..kk..",
  "..kssccssck.....",
];
const FRONT = [
  ".....kkkkkk.....",
  "....kcccccck....",
  "...kcccccccck...",
  "...kcckkkkcck...",
  "...kckffffkck...",
  "...kckfkfkfck...",
  "...ksckffffsk...",
  "....kskffkskkk..",
  "...kkssccsskyyk.",
  "..kccccccccywwk.",
  "..kcscccccfywyk.",
  "..kcscccccskyyk.",
  "..kfccccccck.kk.",
  "...ksccccssk....",
];
const BACK = [
  ".....kkkkkk.....",
  "....kcccccck....",
  "...kcccccccck...",
  "...kcccccccck...",
  "...kcccccccck...",
  "...kscccccssk...",
  "...kscccccssk...",
  ".kk.ksccccsk....",
  "kyykkssccsskk...",
  "kwwyccccccccck..",
  "kywyfcccccscck..",
  ".kyykscccccsck..",
  "..kk.kcccccfk...",
  "....kssccccsk...",
];
const LEGS = [
  ["...kskkkksk.....", "...kkk..kkk....."],
  ["....kskkssk.....", "....kkk.kk......"],
  ["...kskkkksk.....", "...kkk..kkk....."],
  ["...ksskksk......", "....kk.kkk......"],
] as const;

const pictures = new Map<string, OffscreenCanvas>();

/** The walker's picture for a facing and an image number. */
export function walkerPicture(facing: Facing, pose: number): OffscreenCanvas {
  const view = facing.includes("left") ? "left" : facing.includes("right") ? "right" : facing;
  const key = `${view}/${pose % LEGS.length}`;
  const made = pictures.get(key);
  if (made) return made;
  const canvas = new OffscreenCanvas(16, 16);
  const c = canvas.getContext("2d")!;
  const body = view === "up" ? BACK : view === "down" ? FRONT : SIDE;
  const rows = [...body, ...LEGS[pose % LEGS.length]!];
  rows.forEach((row, y) => {
    for (let x = 0; x < 16; x++) {
      const colour = PALETTE[row[x] ?? "."];
      if (colour === undefined) continue;
      c.fillStyle = colour;
      c.fillRect(view === "left" ? 15 - x : x, y, 1, 1);
    }
  });
  pictures.set(key, canvas);
  return canvas;
}
