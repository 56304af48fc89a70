import type { World } from "../../world/world.ts";
import { actorFindings } from "./actor-findings.ts";
import type { Finding } from "./finding.ts";
import { roomFindings } from "./room-findings.ts";
import { speedFitText } from "./speed-fit.ts";
import { startFinding } from "./start-finding.ts";

/** Every finding of a world, in the order of the file. */
export function worldFindings(world: World): Finding[] {
  const findings: Finding[] = [];
  world.rules.forEach((rules, i) => {
    if (rules.gait !== "glide" || rules.glide.arrive === "land") return;
    const fit = speedFitText(world.tileSize, rules.glide.speed);
    if (fit === null) return;
    const effect = rules.glide.arrive === "equal" ? "a leg never ends" : "legs end off the grid";
    findings.push({ place: `rules[${i}].glide.speed`, message: `${fit}; with arrive ${rules.glide.arrive} ${effect}` });
  });
  world.rules.forEach((rules, i) => {
    if (rules.walker.blockedBy.length === 0)
      findings.push({
        place: `rules[${i}].walker.blockedBy`,
        message: "is empty: nothing but the map's edge stops the walker",
      });
  });
  const start = startFinding(world);
  if (start !== null) findings.push(start);
  return [...findings, ...roomFindings(world), ...actorFindings(world)];
}
