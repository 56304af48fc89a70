import type Joi from "joi";
import { ACTOR_DOORS, ACTOR_SPEED, ACTOR_TOUCHES, PATH_THEN, PHASE_DOES, TURNS_BACK } from "../world/actors.ts";
import { KEEPS } from "../world/fixtures.ts";
import { LIMITS } from "../world/limits.ts";
import {
  J,
  box,
  cell,
  choice,
  facing,
  figure,
  id,
  look,
  name,
  optional,
  settingSchema,
  within,
} from "./schema-parts.ts";

const phaseFrames = optional(within(LIMITS.phaseFrames).allow(null), null);
const phase = J.alternatives().conditional(J.object({ do: J.valid("path") }).unknown(true), {
  then: J.object({
    frames: phaseFrames,
    do: J.valid("path"),
    then: optional(choice(...PATH_THEN), "back"),
    cells: J.array().items(cell).min(LIMITS.pathCells[0]).max(LIMITS.pathCells[1]),
  }),
  otherwise: J.object({ frames: phaseFrames, do: choice(...PHASE_DOES) }),
});

/** Shape of an actor in a world of that tile size. */
export function actorSchema(tileSize: number): Joi.ObjectSchema {
  return J.object({
    id,
    name: name.optional(),
    cell,
    facing: optional(facing, "down"),
    speed: settingSchema(ACTOR_SPEED, tileSize),
    blockedBy: optional(J.array().items(id).unique(), ["solid"]),
    doors: optional(choice(...ACTOR_DOORS), "open"),
    turnsBack: optional(choice(...TURNS_BACK), "freely"),
    touch: optional(choice(...ACTOR_TOUCHES), "none"),
    body: optional(box, [0, 0, tileSize, tileSize]),
    keeps: optional(choice(...KEEPS), "run"),
    plan: J.array().items(phase).min(LIMITS.phases[0]).max(LIMITS.phases[1]),
    look: J.alternatives()
      .conditional(J.object({ images: J.exist() }).unknown(true), { then: figure, otherwise: look })
      .optional(),
  });
}
