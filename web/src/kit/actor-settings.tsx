import type { Actor, Box, World } from "@keen-pebble/core/world";
import { ACTOR_DOORS, ACTOR_TOUCHES, FACINGS, KEEPS, TURNS_BACK, actorSpeedRange } from "@keen-pebble/core/world";
import { NumberField } from "../look/number-field.tsx";
import { SelectField } from "../look/select-field.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { session } from "../page-session.ts";
import { ActorLook } from "./actor-look.tsx";
import { IdField } from "./id-field.tsx";
import { KitField } from "./kit-field.tsx";

const DOORS_NAMES = { open: "closed ones stop it", all: "none stops it", none: "all stop it" } as const;
const TURNS_NAMES = { freely: "freely", last: "only without another way" } as const;
const TOUCH_NAMES = { none: "nothing happens", hurt: "the walker is hurt" } as const;
const KEEPS_NAMES = { run: "for the whole run", visit: "while the walker is there", life: "until a respawn" } as const;
const SIDES = ["Left", "Top", "Width", "Height"] as const;

/** All that is set of an actor but its plan. */
export function ActorSettings({ world, actor }: { readonly world: World; readonly actor: Actor }) {
  const { change } = session.actors;
  const t = world.tileSize;
  return (
    <div className="fixture-settings">
      <IdField key={actor.id} id={actor.id} of="the actor" onId={session.actors.rename} />
      <NumberField
        label="Speed"
        unit="px"
        range={actorSpeedRange(t)}
        step={0.5}
        value={actor.speed}
        onValue={(speed, stroke) => (change((each) => ({ ...each, speed }), stroke ?? undefined), true)}
        onStrokeEnd={session.project.endStroke}
      />
      <ChoiceFields actor={actor} />
      {world.flags.map((flag) => (
        <ToggleField
          key={flag}
          label={`${flag} stops it`}
          value={actor.blockedBy.includes(flag)}
          onValue={(on) =>
            change((each) => ({
              ...each,
              blockedBy: world.flags.filter((other) => (other === flag ? on : each.blockedBy.includes(other))),
            }))
          }
        />
      ))}
      <BodyFields body={actor.body} tileSize={t} />
      <ActorLook world={world} actor={actor} />
      <p className="quiet small">Every side of its room is a wall to it. It blocks nobody.</p>
    </div>
  );
}

/** What of an actor is one of some words. */
function ChoiceFields({ actor }: { readonly actor: Actor }) {
  const { change } = session.actors;
  return (
    <>
      <SelectField
        label="Faces"
        value={actor.facing}
        choices={FACINGS}
        onValue={(facing) => change((each) => ({ ...each, facing: facing as Actor["facing"] }))}
      />
      <div className="wide">
        <SelectField
          label="Who meets it"
          value={actor.touch}
          choices={ACTOR_TOUCHES.map((each) => [each, TOUCH_NAMES[each]] as const)}
          onValue={(touch) => change((each) => ({ ...each, touch: touch as Actor["touch"] }))}
        />
      </div>
      <div className="wide">
        <SelectField
          label="Doors"
          value={actor.doors}
          choices={ACTOR_DOORS.map((each) => [each, DOORS_NAMES[each]] as const)}
          onValue={(doors) => change((each) => ({ ...each, doors: doors as Actor["doors"] }))}
        />
      </div>
      <div className="wide">
        <SelectField
          label="Turns back"
          value={actor.turnsBack}
          choices={TURNS_BACK.map((each) => [each, TURNS_NAMES[each]] as const)}
          onValue={(turnsBack) => change((each) => ({ ...each, turnsBack: turnsBack as Actor["turnsBack"] }))}
        />
      </div>
      <div className="wide">
        <SelectField
          label="Keeps"
          value={actor.keeps}
          choices={KEEPS.map((each) => [each, KEEPS_NAMES[each]] as const)}
          onValue={(keeps) => change((each) => ({ ...each, keeps: keeps as Actor["keeps"] }))}
        />
      </div>
    </>
  );
}

/** Its body in its square. */
function BodyFields({ body, tileSize }: { readonly body: Box; readonly tileSize: number }) {
  return (
    <>
      <p className="quiet small">Its body, in px in its square:</p>
      {SIDES.map((side, i) => (
        <KitField
          key={side}
          label={side}
          unit="px"
          range={bodyRange(body, i, tileSize)}
          value={body[i]!}
          onValue={(value, stroke) =>
            session.actors.change(
              (each) => ({ ...each, body: each.body.map((old, n) => (n === i ? value : old)) as unknown as Box }),
              stroke,
            )
          }
        />
      ))}
    </>
  );
}

/** What a number of a body may be: it reaches at most one tile size beyond the frame-square. */
function bodyRange([left, top, width, height]: Box, i: number, t: number): readonly [number, number] {
  if (i === 0) return [-t, 2 * t - width];
  if (i === 1) return [-t, 2 * t - height];
  return [1, 2 * t - (i === 2 ? left : top)];
}
