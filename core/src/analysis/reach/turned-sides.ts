import type { Compiled } from "../../compiled/compiled.ts";
import { ruleAt } from "../../edits/links.ts";
import type { EdgeRule, Room, Side } from "../../world/world.ts";

/** Whether a leg may end within a frame, and another one begin with what is left of it. */
export function carriesBetweenFrames({ rules, glide, tileUnits }: Compiled): boolean {
  return rules.gait === "glide" && glide.carry && tileUnits % glide.speed !== 0;
}

/**
 * Whether it makes a difference from where a leg looks that begins beyond a side of a room: still from there, or from the
 * room that the side leads into. It does where cells side by side lead to different places, and at a corner whose two
 * sides both lead on.
 */
export function hasTurns({ width, height, edges }: Room): boolean {
  const { north, east, south, west } = edges;
  if (changes(north, width) || changes(south, width) || changes(east, height) || changes(west, height)) return true;
  const corner = (one: EdgeRule, other: EdgeRule): boolean =>
    leads(one) && leads(other) && !(one.kind === "wrap" && other.kind === "wrap");
  return [
    corner(ruleAt(north, 0), ruleAt(west, 0)),
    corner(ruleAt(north, width - 1), ruleAt(east, 0)),
    corner(ruleAt(south, 0), ruleAt(west, height - 1)),
    corner(ruleAt(south, width - 1), ruleAt(east, height - 1)),
  ].includes(true);
}

const leads = ({ kind }: EdgeRule): boolean => kind !== "wall";

/** Whether two cells side by side lead on, and not alike. */
function changes(side: Side, length: number): boolean {
  for (let at = 1; at < length; at++) {
    const [one, other] = [ruleAt(side, at - 1), ruleAt(side, at)];
    if (leads(one) && leads(other) && !isSame(one, other)) return true;
  }
  return false;
}

function isSame(one: EdgeRule, other: EdgeRule): boolean {
  if (one.kind !== "link" || other.kind !== "link") return one.kind === other.kind;
  return one.room === other.room && one.offset === other.offset;
}
