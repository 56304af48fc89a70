import type { World } from "@keen-pebble/core/world";
import { roomById } from "@keen-pebble/core/world";
import { useStore } from "zustand";
import { Segments } from "../../look/segments.tsx";
import { SelectField } from "../../look/select-field.tsx";
import { WholeField } from "../../look/whole-field.tsx";
import { session } from "../../page-session.ts";
import type { Origin } from "../../session/reach/reach.ts";
import { useBench } from "../../use-session.ts";

/** More of an item than this is not asked with. */
const MOST_HELD = 99;

/** From where it is asked what can be reached, with what in the bag, and under which rules. */
export function Question({ world }: { readonly world: World }) {
  const origin = useStore(session.reach.store, (state) => state.origin);
  const rules = useStore(session.reach.store, (state) => state.rules) ?? world.activeRules;
  const frame = useBench((state) => (state.run === null ? null : state.frame));
  return (
    <section className="reach-question" aria-label="What is asked">
      <h2>What can be reached from</h2>
      <Segments
        label="From"
        value={origin}
        choices={[
          { value: "start", name: "Start" },
          { value: "frame", name: frame === null ? "Shown frame" : `Frame ${frame}`, disabled: frame === null },
          { value: "cell", name: "Cell" },
        ]}
        onValue={session.reach.chooseOrigin}
      />
      <div className="pair">
        <div className="labelled">
          <span className="label">From</span>
          <From world={world} origin={origin} />
        </div>
        <SelectField
          label="Rules"
          value={rules}
          choices={world.rules.map(({ id, name }) => [id, name])}
          onValue={session.reach.chooseRules}
        />
      </div>
      {origin === "cell" && <Bag world={world} />}
    </section>
  );
}

function From({ world, origin }: { readonly world: World; readonly origin: Origin }) {
  useStore(session.reach.store, (state) => state.stand);
  if (origin === "frame") return <span>where the walker is</span>;
  const { room, cell } = origin === "start" ? world.start : session.reach.stand()!;
  return <span>{`${roomById(world, room)?.name ?? room} ${cell.join(",")}`}</span>;
}

/** What is held at the chosen cell. */
function Bag({ world }: { readonly world: World }) {
  const bag = useStore(session.reach.store, (state) => state.stand?.bag);
  return (
    <>
      <p className="quiet small">Click a cell of the plan, then Ask from here.</p>
      {world.items.length > 0 && (
        <div className="reach-bag" role="group" aria-label="In the bag">
          {world.items.map(({ id, name }) => (
            <WholeField
              key={id}
              label={name}
              range={[0, MOST_HELD]}
              value={bag?.get(id) ?? 0}
              onValue={(count) => session.reach.askWith(id, count)}
            />
          ))}
        </div>
      )}
    </>
  );
}
