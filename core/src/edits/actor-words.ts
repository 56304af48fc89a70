import equal from "fast-deep-equal";
import type { Actor, Phase } from "../world/actors.ts";
import { PHASE_SAYS } from "../world/actors.ts";

/** What became of the actors of a room, as a revision tells it (interface.md, Journal): `Drain crab: speed 1 to 0.75`. */
export function actorsChanged(before: readonly Actor[], after: readonly Actor[]): string[] {
  const was = new Map(before.map((actor) => [actor.id, actor]));
  const is = new Map(after.map((actor) => [actor.id, actor]));
  return [...new Set([...was.keys(), ...is.keys()])].flatMap((id) => {
    const [one, other] = [was.get(id), is.get(id)];
    if (one === undefined) return [`${called(other!)} added`];
    if (other === undefined) return [`${called(one)} deleted`];
    return equal(one, other) ? [] : [`${called(one)}: ${actorChanged(one, other).join(", ")}`];
  });
}

const called = ({ id, name }: Actor): string => name ?? id;

function actorChanged(was: Actor, is: Actor): string[] {
  const settings = [
    changed("named", was.name ?? was.id, is.name ?? is.id),
    changed("cell", was.cell.join(","), is.cell.join(",")),
    changed("facing", was.facing, is.facing),
    changed("speed", was.speed, is.speed),
    changed("stopped by", listed(was.blockedBy), listed(is.blockedBy)),
    changed("doors shut to it", was.doors, is.doors),
    changed("turns back", was.turnsBack, is.turnsBack),
    changed("touch", was.touch, is.touch),
    changed("body", was.body.join(" "), is.body.join(" ")),
    changed("keeps", was.keeps, is.keeps),
  ];
  return [
    ...settings.filter((each) => each !== null),
    ...planChanged(was.plan, is.plan),
    ...(equal(was.look, is.look) ? [] : ["picture"]),
  ];
}

function planChanged(was: readonly Phase[], is: readonly Phase[]): string[] {
  const said: string[] = [];
  for (let i = 0; i < Math.max(was.length, is.length); i++) {
    const [one, other] = [was[i], is[i]];
    // The page counts them from 1.
    const phase = `phase ${i + 1}`;
    if (one === undefined) said.push(`${phase} added, ${PHASE_SAYS[other!.do]}`);
    else if (other === undefined) said.push(`${phase} deleted`);
    else if (!equal(one, other)) said.push(...phaseChanged(phase, one, other));
  }
  return said;
}

function phaseChanged(phase: string, was: Phase, is: Phase): string[] {
  const frames = changed(`${phase} frames`, was.frames ?? "for ever", is.frames ?? "for ever");
  const said = [changed(phase, PHASE_SAYS[was.do], PHASE_SAYS[is.do]), frames];
  if (was.do === "path" && is.do === "path") {
    said.push(changed(`${phase} then`, was.then, is.then));
    if (!equal(was.cells, is.cells)) said.push(`cells of the path of ${phase}`);
  }
  return said.filter((each) => each !== null);
}

function changed(what: string, was: number | string, is: number | string): string | null {
  return was === is ? null : `${what} ${was} to ${is}`;
}

const listed = (flags: readonly string[]): string => (flags.length === 0 ? "nothing" : flags.join(" and "));
