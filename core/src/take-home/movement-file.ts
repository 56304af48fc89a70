import { rulesById } from "../world/queries.ts";
import type { World } from "../world/world.ts";
import { constantsOf } from "./constants.ts";
import type { MarkedLine } from "./marked-parts.ts";
import { usedLines } from "./marked-parts.ts";
import { oneLine } from "./one-line.ts";
import { FIXTURES } from "./program/fixtures.ts";
import { DRIFT, FREE, ROAM } from "./program/free-gaits.ts";
import { CHOICE, GLIDE, HOP } from "./program/grid-gaits.ts";
import { GROUND } from "./program/ground.ts";
import { KEYS } from "./program/keys.ts";
import { LOOKS } from "./program/looks.ts";
import { ROOMS } from "./program/rooms.ts";
import { STATE, STEP } from "./program/state.ts";
import { usedNames, usesOf } from "./uses.ts";

/** A line of the program and the settings that it stands there for, such as `glide.carry`. */
export interface ProgramLine {
  readonly text: string;
  readonly settings: readonly string[];
}

/** The program by gait, in the order of a frame. */
const GAIT_PARTS = {
  hop: [CHOICE, HOP],
  glide: [CHOICE, GLIDE],
  roam: [ROAM, FREE],
  drift: [DRIFT, FREE],
} as const;

/**
 * `movement.js`: the rules as a program (formats.md section 10), holding only what this world and rule set use.
 * @param rulesId one of the world's
 */
export function movementLines(world: World, rulesId: string): readonly ProgramLine[] {
  const rules = rulesById(world, rulesId)!;
  const uses = usesOf(world, rules);
  const names = usedNames(uses);
  const settingsOf = ({ about }: MarkedLine): readonly string[] => [
    ...new Set(about.flatMap((name) => uses.get(name)?.setting ?? [])),
  ];
  const head = [
    `// How the walker of ${oneLine(world.name)} moves: the rule set ${oneLine(rules.name)}.`,
    "// Lengths are whole units, x grows to the right and y down. Nothing here knows of time, chance or fractions.",
    "",
  ];
  const parts = [STATE, STEP, KEYS, ...GAIT_PARTS[rules.gait], GROUND, LOOKS, ROOMS, FIXTURES];
  const lines = parts.flatMap((part) => usedLines(part, names));
  const program = lines.map(({ text }) => text).join("\n");
  const constants = constantsOf(world, rules).filter(({ name }) => new RegExp(`\\b${name}\\b`).test(program));
  const settingOf = new Map(constants.map(({ name, setting }) => [name, setting]));
  const named = (text: string): readonly string[] =>
    (text.match(/\b[A-Z][A-Z_]+\b/g) ?? []).flatMap((name) => settingOf.get(name) ?? []);
  return spaced([
    ...head.map((text) => ({ text, settings: [] })),
    ...constants.map(({ name, value, what, setting }) => ({
      text: `const ${name} = ${value};${what === "" ? "" : ` // ${what}`}`,
      settings: setting === null ? [] : [setting],
    })),
    { text: "", settings: [] },
    ...lines.map((line) => ({ text: line.text, settings: [...new Set([...settingsOf(line), ...named(line.text)])] })),
  ]);
}

/** Without two empty lines after one another, and none at the end. */
function spaced(lines: readonly ProgramLine[]): readonly ProgramLine[] {
  const kept = lines.filter(({ text }, i) => text !== "" || (i > 0 && lines[i - 1]!.text !== ""));
  while (kept.at(-1)?.text === "") kept.pop();
  return kept;
}
