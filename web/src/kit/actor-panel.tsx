import type { ExplainedActor } from "@keen-pebble/core/simulate";
import type { Actor, World } from "@keen-pebble/core/world";
import { PHASE_SAYS, actorById } from "@keen-pebble/core/world";
import { BareButton } from "../look/bare-button.tsx";
import { Segments } from "../look/segments.tsx";
import { session } from "../page-session.ts";
import { useBench } from "../use-session.ts";
import { ActorPlan } from "./actor-plan.tsx";
import { ActorSettings } from "./actor-settings.tsx";
import { WorldFindings } from "./world-findings.tsx";
import "./actors.css";
import "./fixtures.css";

/** What moves by itself in the shown room: placed, set, with what it weighed and chose in the shown frame. */
export function ActorPanel({ world }: { readonly world: World }) {
  const roomId = useBench((state) => state.room);
  const pen = useBench((state) => state.actorPen);
  const chosenId = useBench((state) => state.actor);
  const room = world.rooms.find(({ id }) => id === roomId);
  const chosen = chosenId === null ? undefined : actorById(world, chosenId);
  const walking = useBench((state) => state.walk !== null);
  return (
    <>
      <Segments
        label="What a click does"
        value={pen === "path" ? null : pen}
        choices={[
          { value: "choose", name: "Choose and move", disabled: walking },
          { value: "place", name: "Place an actor", disabled: walking },
        ]}
        onValue={(value) => session.actors.takeUp(value)}
      />
      <p className="quiet small">{PEN_TEXTS[pen]}</p>
      {chosen !== undefined && chosen.room === roomId && (
        <ChosenActor key={chosen.actor.id} world={world} actor={chosen.actor} />
      )}
      <ul className="fixture-list" aria-label="Actors of this room">
        {room?.actors.map((actor) => (
          <li key={actor.id}>
            <button
              type="button"
              aria-pressed={actor.id === chosenId}
              onClick={() => session.actors.choose(actor.id === chosenId ? null : actor.id)}
            >
              <span className="grow">{actor.name ?? actor.id}</span>
              <span className="quiet">{actor.plan.map((phase) => PHASE_SAYS[phase.do]).join(", ")}</span>
              <span className="mono quiet">{actor.cell.join(",")}</span>
            </button>
          </li>
        ))}
        {room?.actors.length === 0 && <li className="quiet small">Nothing moves by itself in {room.name} yet.</li>}
      </ul>
      <WorldFindings world={world} among=".actors[" />
    </>
  );
}

const PEN_TEXTS = {
  choose: "Click an actor to choose it, drag it to where it begins.",
  place: "Click a cell: an actor begins there.",
  path: "Click or drag over cells: the path goes on there. Drag one of its numbers to move it.",
} as const;

function ChosenActor({ world, actor }: { readonly world: World; readonly actor: Actor }) {
  const explained = useBench((state) =>
    state.explanation?.frame === state.frame
      ? (state.explanation.actors.find(({ id }) => id === actor.id) ?? null)
      : null,
  );
  const frame = useBench((state) => state.frame);
  return (
    <section aria-label="Chosen actor" className="chosen-fixture">
      <div className="row-line">
        <h3 className="grow">{actor.name ?? actor.id}</h3>
        <BareButton icon="bin" name="Delete the actor" onClick={session.actors.removeChosen} />
      </div>
      {explained !== null && <Account frame={frame} explained={explained} />}
      <ActorPlan actor={actor} shown={explained?.phase ?? null} />
      <ActorSettings world={world} actor={actor} />
    </section>
  );
}

const WAYS = ["left", "right", "up", "down"] as const;

/** What it was about in the shown frame, what it weighed and chose. */
function Account({ frame, explained }: { readonly frame: number; readonly explained: ExplainedActor }) {
  const { chose, directions, does, framesLeft, meets, phase, target } = explained;
  return (
    <dl className="actor-account" aria-label={`Frame ${frame}`}>
      <dt>Frame {frame}</dt>
      <dd>
        phase {phase + 1}, {PHASE_SAYS[does]}
        {framesLeft !== null && `, ${framesLeft} ${framesLeft === 1 ? "frame" : "frames"} left`}
      </dd>
      {target !== null && <dt>Goes to</dt>}
      {target !== null && <dd className="mono">{target.join(",")}</dd>}
      {directions.length > 0 && <dt>Weighed</dt>}
      {directions.length > 0 && (
        <dd>
          {directions.map(({ distance, is }, way) => (
            <span key={WAYS[way]} className={`pill${way === chose ? " good" : ""}${is === "open" ? "" : " shut"}`}>
              {WAYS[way]}
              {is === "open" ? (distance === null ? "" : ` ${distance}`) : is === "shut" ? " shut" : " back, left out"}
            </span>
          ))}
        </dd>
      )}
      <dt>Chose</dt>
      <dd>
        {chose === null
          ? frame === 0
            ? "nothing yet"
            : "nothing: it is on a leg"
          : chose < 0
            ? "none: it stands"
            : WAYS[chose]}
      </dd>
      {meets && <dt>Meets</dt>}
      {meets && <dd>the walker</dd>}
    </dl>
  );
}
