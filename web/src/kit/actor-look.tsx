import { figureOf } from "@keen-pebble/core/edit";
import type { Actor, World } from "@keen-pebble/core/world";
import { ACTOR_COLOUR } from "../field/draw-actors.ts";
import { ToggleField } from "../look/toggle-field.tsx";
import { session } from "../page-session.ts";
import { FacingImages } from "./facing-images.tsx";
import { LookFields } from "./look-fields.tsx";

/** How an actor looks: a colour, one place of a sheet, or pictures for each facing. */
export function ActorLook({ world, actor }: { readonly world: World; readonly actor: Actor }) {
  const { change } = session.actors;
  const { look = { fill: ACTOR_COLOUR } } = actor;
  const sheet = world.sheets[0];
  const byFacing = "images" in look;
  return (
    <div className="wide actor-look">
      {sheet !== undefined && (
        <ToggleField
          label="images for each facing"
          value={byFacing}
          onValue={(on) =>
            change((each) => ({
              ...each,
              look: on
                ? figureOf(world, { sheet: sheet.id, at: [0, 0], size: [1, 1], along: "rows", facings: ["down"] }, null)
                : { fill: ACTOR_COLOUR },
            }))
          }
        />
      )}
      {byFacing ? (
        <FacingImages
          world={world}
          figure={look}
          name="the actor"
          onFigure={(places, stroke) => change((each) => ({ ...each, look: figureOf(world, places, look) }), stroke)}
        />
      ) : (
        <LookFields
          world={world}
          look={look}
          name="the actor"
          patterned={false}
          onLook={(next, stroke) => change((each) => ({ ...each, look: next }), stroke)}
        />
      )}
    </div>
  );
}
