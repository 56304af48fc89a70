import Joi from "joi";
import { ACTOR_DOORS, ACTOR_SPEED, ACTOR_TOUCHES, PATH_THEN, PHASE_DOES, TURNS_BACK } from "../world/actors.ts";
import { KEEPS } from "../world/fixtures.ts";
import { LIMITS } from "../world/limits.ts";
import { box, cell, choice, facing, figure, id, look, name, optional, settingSchema, within } from "./schema-parts.ts";

const phaseFrames = optional(within(LIMITS.phaseFrames).allow(null), null);
const phase = Joi.alternatives().conditional(Joi.object({ do: Joi.valid("path") }).unknown(true), {
  then: Joi.object({
    frames: phaseFrames,
    do: Joi.valid("path"),
    then: optional(choice(...PATH_THEN), "back"),
    cells: Joi.array().items(cell).min(LIMITS.pathCells[0]).max(LIMITS.pathCells[1]),
  }),
  otherwise: Joi.object({ frames: phaseFrames, do: choice(...PHASE_DOES) }),
});

/** Shape of an actor in a world of that tile size. */
export function actorSchema(tileSize: number): Joi.ObjectSchema {
  return Joi.object({
    id,
    name: name.optional(),
    cell,
    facing: optional(facing, "down"),
    speed: settingSchema(ACTOR_SPEED, tileSize),
    blockedBy: optional(Joi.array().items(id).unique(), ["solid"]),
    doors: optional(choice(...ACTOR_DOORS), "open"),
    turnsBack: optional(choice(...TURNS_BACK), "freely"),
    touch: optional(choice(...ACTOR_TOUCHES), "none"),
    body: optional(box, [0, 0, tileSize, tileSize]),
    keeps: optional(choice(...KEEPS), "run"),
    plan: Joi.array().items(phase).min(LIMITS.phases[0]).max(LIMITS.phases[1]),
    look: Joi.alternatives()
      .conditional(Joi.object({ images: Joi.exist() }).unknown(true), { then: figure, otherwise: look })
      .optional(),
  });
}
