import { conform as compareWithGame, divergenceText, spotBefore } from "@keen-pebble/core/analyse";
import type { Verdict } from "@keen-pebble/core/check";
import type { GameTrace } from "@keen-pebble/core/formats";
import { gameOfTrace, gameTrace, readGameTable } from "@keen-pebble/core/reading";
import { junitXml } from "@keen-pebble/core/reports";
import { compile, explainFrame, run } from "@keen-pebble/core/simulate";
import type { Game, World } from "@keen-pebble/core/world";
import { LIMITS, UNITS_PER_PX, rulesById } from "@keen-pebble/core/world";
import { NO, OK } from "../exit-codes.ts";
import { logFile, readText, worldFile, writeWhole } from "../files.ts";
import { ensureApart } from "../options.ts";
import { printBeside } from "../standard-output.ts";
import { UnusableOption } from "../unusable.ts";

export interface ConformOptions {
  readonly game?: string;
  readonly tolerance?: number;
  readonly rules?: string;
  readonly junit?: string;
  readonly json?: boolean;
}

/**
 * `conform WORLD LOG TRACE`: where the walker of a game of one's own was, beside where ours is, and the first frame in
 * which they are further apart than the tolerance (formats.md sections 7 and 9).
 */
export function conform(worldPath: string, logPath: string, tracePath: string, options: ConformOptions): number {
  const print = printBeside(options.junit);
  ensureApart(options.json ?? false, [["--junit", options.junit]]);
  const world = worldFile(worldPath);
  const log = logFile(logPath, world);
  const c = compile(world, options.rules ?? log.rules ?? undefined);
  const { rows, frames } = run(c, log, { rows: true });
  const { game, trace } = traceOf(world, rulesById(world, c.rules.id)!, tracePath, options.game);
  const tolerance = options.tolerance ?? game.tolerance;
  const { compared, first, farthest } = compareWithGame(rows!, trace, tolerance);
  const text = first && divergenceText(world, first, spotBefore(trace, first.frame), explainFrame(c, log, first.frame));
  if (options.junit !== undefined) {
    const check = `within ${tolerance} px of ours`;
    const verdict: Verdict = { check, verdict: first ? "fail" : "pass", frame: first?.frame ?? frames, seen: text };
    writeWhole(options.junit, [junitXml([{ log: tracePath, frames, checks: [verdict] }], world.frameRate)]);
  }
  const spot = (at: { room: number; x: number; y: number }) => ({
    room: world.rooms[at.room]!.id,
    x: at.x / UNITS_PER_PX,
    y: at.y / UNITS_PER_PX,
  });
  if (options.json)
    print(
      JSON.stringify(
        {
          conforms: first === null,
          game: game.id,
          tolerance,
          compared,
          farthest: farthest / UNITS_PER_PX,
          first: first && { frame: first.frame, ours: spot(first.ours), theirs: spot(first.theirs), seen: text },
        },
        null,
        2,
      ),
    );
  else if (first === null)
    print(
      `within ${tolerance} px in all ${compared} frames that both have; ${farthest / UNITS_PER_PX} px apart at the most`,
    );
  else {
    const where = (at: typeof first.ours): string => {
      const { room, x, y } = spot(at);
      return `${room} ${x} ${y}`;
    };
    print(`diverges at frame ${first.frame}, after ${compared - 1} frames within ${tolerance} px`);
    print(`  ours   ${where(first.ours)}`);
    print(`  yours  ${where(first.theirs)}`);
    print(`  ${text}`);
  }
  return first === null ? OK : NO;
}

/** The trace in a file, read as our own or as that of a game that the world knows. */
function traceOf(
  world: World,
  rules: World["rules"][number],
  file: string,
  named: string | undefined,
): { readonly game: Game; readonly trace: GameTrace } {
  const table = readGameTable(readText(file, LIMITS.csvBytes), file);
  const game = named === undefined ? gameOfTrace(world.games, table) : world.games.find(({ id }) => id === named);
  if (game === undefined) throw new UnusableOption(`--game: the world knows no game ${named}`);
  if (game === null) {
    const known = world.games.map(({ id }) => id).join(", ") || "none";
    throw new UnusableOption(
      `${file}: its columns are neither those of our traces nor of a game that the world knows (${known}); name one with --game`,
    );
  }
  return { game, trace: gameTrace(table, game, world, rules, file) };
}
