import { compile } from "../simulation/compile.ts";
import { compileBody } from "../ground/body.ts";
import type { InputLog } from "../logs/input-log.ts";
import { OUR_TRACES } from "../formats/game-trace.ts";
import type { World } from "../world/world.ts";
import { goldenLog } from "./golden.ts";
import { movementLines } from "./movement-file.ts";
import { goldenReadme, portingText } from "./porting.ts";
import { CONFORM } from "./program/conform.ts";
import { worldTables } from "./world-tables.ts";

/** A file of the folder that is taken home. */
export interface TakenFile {
  /** Within the folder, such as `golden/README.md`. */
  readonly path: string;
  readonly text: string;
}

/**
 * The rules taken home: a folder for the programmer's own repository (formats.md section 10). The same world, rule set
 * and logs give the same files.
 * @param logs by id; each is run under the rules that are taken home
 * @throws {CoreError} where a log cannot run in the world, or the world has no such rule set
 */
export function takeHome(world: World, rulesId: string, logs: ReadonlyMap<string, InputLog>): readonly TakenFile[] {
  const c = compile(world, rulesId);
  const golden = [...logs].flatMap(([id, log]) => goldenLog(c, id, log) ?? []).sort((a, b) => (a.id < b.id ? -1 : 1));
  const { left, top, right, bottom } = compileBody(c.rules.walker.body);
  const conform = CONFORM.replace("{GAMES}", () => JSON.stringify([...world.games, OUR_TRACES], null, 2))
    .replace("{TILE}", String(world.tileSize))
    .replace("{BODY}", `[${left}, ${top}, ${right}, ${bottom}]`);
  return [
    { path: "PORTING.md", text: portingText(world, rulesId, golden) },
    { path: "conform.js", text: conform },
    { path: "movement.js", text: movementText(world, rulesId) },
    // So that Node takes the files for modules, whatever stands above them.
    { path: "package.json", text: '{ "private": true, "type": "module" }\n' },
    { path: "world.json", text: worldTables(world, rulesId) },
    { path: "golden/README.md", text: goldenReadme() },
    ...golden.flatMap(({ id, inputs, trace }) => [
      { path: `golden/${id}.inputs`, text: inputs },
      { path: `golden/${id}.trace.csv`, text: trace },
    ]),
  ];
}

/** `movement.js` as a text. */
export function movementText(world: World, rulesId: string): string {
  return `${movementLines(world, rulesId)
    .map(({ text }) => text)
    .join("\n")}\n`;
}
