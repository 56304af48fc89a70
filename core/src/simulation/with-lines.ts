import { kindOfFixture } from "../world/fixtures.ts";
import type { Remembered } from "./explain.ts";
import { FACINGS } from "../world/facing.ts";
import { allActors, allFixtures } from "../world/queries.ts";
import type { World } from "../world/world.ts";
import type { WithLine } from "./run-start.ts";

/** What a log must set up to begin with what a run remembers in a frame: the log is then whole in itself (formats.md section 2). */
export function withLinesOf(world: World, remembered: Remembered): WithLine[] {
  const fixtures = allFixtures(world);
  const lines: WithLine[] = world.items.flatMap(({ id }, i): WithLine[] =>
    remembered.bag[i]! > 0 ? [{ kind: "holds", item: id, count: remembered.bag[i]! }] : [],
  );
  const setUp = (what: "taken" | "open"): void =>
    fixtures.forEach((fixture, i) => {
      if (kindOfFixture(fixture.kind).setUp(fixture) === what && remembered[what][i] === 1)
        lines.push({ kind: what, fixture: fixture.id });
    });
  setUp("taken");
  setUp("open");
  world.circuits.forEach((circuit, i) => {
    if (remembered.on[i] === 1) lines.push({ kind: "circuit", circuit });
  });
  if (remembered.lives !== null && remembered.lives !== world.lives)
    lines.push({ kind: "lives", lives: remembered.lives });
  if (remembered.checkpoint >= 0) lines.push({ kind: "respawn", fixture: fixtures[remembered.checkpoint]!.id });
  allActors(world).forEach(({ cell, facing, id }, i) => {
    const now = remembered.actors[i]!;
    const looks = FACINGS[now.facing]!;
    if (now.cell[0] === cell[0] && now.cell[1] === cell[1] && looks === facing) return;
    lines.push({ kind: "actor", actor: id, cell: now.cell, facing: looks });
  });
  return lines;
}
