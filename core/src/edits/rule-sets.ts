import type { Project } from "./project.ts";
import { readLog } from "../logs/read-log.ts";
import { writeLog } from "../logs/write-log.ts";
import { copyName } from "../world/copy-name.ts";
import type { World } from "../world/world.ts";
import { rulesById } from "../world/queries.ts";
import type { Followed } from "./references.ts";
import { freeId } from "./tiles.ts";

/** The world with a copy of a rule set behind it, under an id and a name of its own. */
export function copyRuleSet(world: World, id: string): { readonly world: World; readonly copy: string } {
  const rules = rulesById(world, id)!;
  const copy = freeId(
    id,
    world.rules.map((each) => each.id),
  );
  const at = world.rules.indexOf(rules) + 1;
  const name = copyName(
    rules.name,
    world.rules.map((each) => each.name),
  );
  return {
    world: { ...world, rules: [...world.rules.slice(0, at), { ...rules, id: copy, name }, ...world.rules.slice(at)] },
    copy,
  };
}

/** The world with a rule set under another name. */
export function renameRuleSet(world: World, id: string, name: string): World {
  return { ...world, rules: world.rules.map((rules) => (rules.id === id ? { ...rules, name } : rules)) };
}

/**
 * The project without a rule set. Logs that named it go by the world's own one from then on, and that is told; where it
 * was the world's own, the first of the others is. Null for the last one: a world has at least one.
 */
export function removeRuleSet(project: Project, id: string): Followed | null {
  const { world } = project;
  const rules = world.rules.filter((each) => each.id !== id);
  if (rules.length === 0) return null;
  const activeRules = world.activeRules === id ? rules[0]!.id : world.activeRules;
  const named = [...project.logs].filter(([, text]) => readLog(text).rules === id).map(([log]) => log);
  const logs = new Map(
    [...project.logs].map(([log, text]) => [log, named.includes(log) ? withRules(text, null) : text]),
  );
  return {
    project: { world: { ...world, rules, activeRules }, logs },
    fellAway: named.map((log) => `${log}: its rule set, now ${activeRules}`),
  };
}

/** A log's text with another rule set named in it; null names none: the log goes by the world's own. */
export function withRules(text: string, rules: string | null): string {
  return writeLog({ ...readLog(text), rules });
}
