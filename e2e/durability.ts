// The long round of what `saved-edits.test.ts` shows in short: figures as JSON lines.
import { BenchDriver } from "./bench-driver.ts";
import { Browser } from "./browser.ts";
import { killRounds } from "./kill-rounds.ts";
import { Started } from "./started.ts";

const SECONDS = 20;
const started = await Started.start();
const browser = await Browser.open();
const bench = new BenchDriver(browser);
const say = (what: string, figures: object): void => void process.stdout.write(`${JSON.stringify({ what, ...figures })}\n`);

try {
  const rounds = await killRounds(started, 200, 1);
  say("server killed at random moments", rounds);

  await browser.driver.get(`${started.address}/w/saltglass-cistern/bench`);
  await bench.ready();
  started.postgres.stop("immediate");
  const began = performance.now();
  let strokes = 0;
  await bench.tile("Mossy stone");
  const painted: number[] = [];
  while (performance.now() - began < SECONDS * 1000) {
    const [x, y] = [2 + (strokes % 3), 4 + (strokes % 5)] as const;
    await bench.drag([x, y]);
    painted.push(y * 20 + x);
    strokes++;
  }
  const said = await browser.untilText(".saving", (text) => text.startsWith("offline"));
  started.postgres.restart();
  const back = performance.now();
  await browser.untilText(".saving", (text) => text.startsWith("saved"));
  const { world } = await started.api<{ world: { tiles: { id: string }[]; rooms: { cells: number[] }[] } }>("/worlds/saltglass-cistern");
  const missing = [...new Set(painted)].filter((cell) => world.tiles[world.rooms[0]!.cells[cell]!]!.id !== "moss").length;
  say("database stopped while painting", { seconds: SECONDS, strokes, said, savedAfterMs: Math.round(performance.now() - back), cellsMissing: missing });
  if (rounds.faults.length > 0 || missing > 0) process.exitCode = 1;
} finally {
  await browser.close();
  await started.stop();
}
