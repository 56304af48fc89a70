import { describe, expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { run } from "../../replay/run.ts";
import type { TinyOptions } from "../../test-support/tiny-world.ts";
import { tinyLog, tinyWorld } from "../../test-support/tiny-world.ts";
import { traceText } from "../../simulation/trace.ts";

/** x and y in px, row by row, of a log in a room. */
function places(rows: string[], options: TinyOptions, keys: string): string[] {
  const { rows: trace } = run(compile(tinyWorld(rows, options)), tinyLog(keys), { rows: true });
  return Array.from({ length: trace!.count }, (_, i) => `${trace!.x[i]! / 256} ${trace!.y[i]! / 256}`);
}

/** `frame event` of a log in a room. */
function events(rows: string[], options: TinyOptions, keys: string): string[] {
  const compiled = compile(tinyWorld(rows, options));
  return [...traceText(compiled, run(compiled, tinyLog(keys), { rows: true }).rows!)]
    .join("")
    .split("\r\n")
    .slice(1)
    .map((row) => row.split(","))
    .filter((columns) => columns[12])
    .map((columns) => `${columns[0]} ${columns[12]}`);
}

describe("glide, arrive", () => {
  const odd = { tileSize: 40, glide: { speed: 7, carry: false } } as const;

  it("land stops exactly on the cell and loses the rest of the step", () => {
    expect(places(["S..."], { ...odd, glide: { ...odd.glide, arrive: "land" } }, "6 R,2 .").slice(5)).toEqual([
      "35 0",
      "40 0",
      "40 0",
      "40 0",
    ]);
  });
  it("land with carry spends the rest on the next leg", () => {
    expect(places(["S..."], { ...odd, glide: { speed: 7, carry: true } }, "7 R").slice(5)).toEqual([
      "35 0",
      "42 0",
      "49 0",
    ]);
  });
  it("equal runs off with a speed that does not divide the tile, through the wall and off the map", () => {
    expect(events(["S..#"], { ...odd, glide: { ...odd.glide, arrive: "equal" } }, "60 R")).toEqual(["23 escape"]);
  });
  it("equal arrives with a speed that does divide it", () => {
    expect(events(["S.."], { tileSize: 40, glide: { speed: 8, arrive: "equal" } }, "10 R,3 .")).toEqual([
      "5 arrive",
      "10 arrive",
    ]);
  });
  it("past arrives off the grid and tests the next target from there", () => {
    expect(places(["S..."], { ...odd, glide: { ...odd.glide, arrive: "past" } }, "12 R,2 .").slice(6)).toEqual([
      "42 0",
      "49 0",
      "56 0",
      "63 0",
      "70 0",
      "77 0",
      "84 0",
      "84 0",
      "84 0",
    ]);
  });
});

describe("glide, choosing", () => {
  const quick = { speed: 16, carry: false } as const;

  it("takes the second choice where the first is blocked, and not with slide off", () => {
    expect(places(["S#", ".."], { glide: quick }, "1 D,1 U,1 RD").at(-1)).toBe("0 16");
    expect(places(["S#", ".."], { glide: quick, input: { prefer: "horizontal" } }, "1 RD").at(-1)).toBe("0 16");
    expect(
      places(["S#", ".."], { glide: { ...quick, slide: false }, input: { prefer: "horizontal" } }, "1 RD").at(-1),
    ).toBe("0 0");
  });
  it("goes diagonally with ways 8 only where both neighbours are free, unless corners may be cut", () => {
    const ways = { ways: 8 } as const;
    expect(places(["S.", ".."], { glide: quick, input: ways }, "1 RD").at(-1)).toBe("16 16");
    expect(places(["S#", ".."], { glide: quick, input: ways }, "1 RD").at(-1)).toBe("0 16");
    expect(places(["S#", ".."], { glide: { ...quick, cutCorners: true }, input: ways }, "1 RD").at(-1)).toBe("16 16");
  });
  it("keeps a turn that was pressed early and let go again, for so many frames", () => {
    const slow = (bufferFrames: number) => ({ glide: { speed: 4, bufferFrames } });
    expect(places(["S..", "..."], slow(4), "2 R,1 D,6 .").at(-1)).toBe("16 16");
    expect(places(["S..", "..."], slow(1), "2 R,1 D,6 .").at(-1)).toBe("16 0");
  });
  it("keeps going until something stops it, and then forgets", () => {
    expect(places(["S..#."], { glide: { ...quick, keepGoing: true } }, "1 R,6 .").at(-1)).toBe("32 0");
  });
  it("turns round in the middle of a leg, if it may", () => {
    expect(places(["S.."], { glide: { speed: 4, reverse: true } }, "2 R,3 L").slice(2)).toEqual([
      "8 0",
      "4 0",
      "0 0",
      "0 0",
    ]);
    expect(places(["S.."], { glide: { speed: 4 } }, "2 R,2 L").slice(2)).toEqual(["8 0", "12 0", "16 0"]);
  });
  it("writes one bump for a row of frames held against a wall", () => {
    expect(events(["S#"], { glide: quick }, "5 R,1 .,3 R")).toEqual(["1 bump", "7 bump"]);
  });
  it("wraps round the room and goes on with its leg", () => {
    const { x, events: happened } = run(
      compile(tinyWorld(["S.."], { edges: "wrap", glide: { speed: 4 } })),
      tinyLog("4 L,4 ."),
      { rows: true },
    ).rows!;
    expect([...x].map((v) => v / 256)).toEqual([0, -4, -8, 36, 32, 32, 32, 32, 32]);
    expect([...happened]).toEqual([3, 2, -1, 4, 1, -1]);
  });
});
