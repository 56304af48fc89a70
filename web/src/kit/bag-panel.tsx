import { session } from "../page-session.ts";
import { KEEPS, kindOfFixture } from "@keen-pebble/core/world";
import { stateText, lookOf } from "../field/fixture-looks.ts";
import { drawingOf } from "../field/fixture-art.ts";
import type { Remembered } from "@keen-pebble/core/simulate";
import type { Fixture, World } from "@keen-pebble/core/world";
import { useState } from "react";
import { useBench } from "../use-session.ts";
import { FixtureImage } from "../field/fixture-image.tsx";
import "./bag.css";
import Table from "react-bootstrap/Table";

/** What the walker holds and what each room remembers in the shown frame. */
export function BagPanel({ world }: { readonly world: World }) {
  const remembered = useBench((state) => state.explanation?.remembered ?? null);
  const status = useBench((state) => state.explanation?.status ?? "playing");
  const frame = useBench((state) => state.frame);
  if (remembered === null)
    return (
      <p className="quiet small">
        Choose or walk a log: what the walker holds and what each room remembers is shown here, frame by frame.
      </p>
    );
  const checkpoint =
    remembered.checkpoint < 0 ? null : world.rooms.flatMap((room) => room.fixtures)[remembered.checkpoint];
  return (
    <>
      <h3>
        Bag <span className="quiet">frame {frame}</span>
      </h3>
      <ul className="bag" aria-label="Bag">
        {world.items.map((item, i) => (
          <li key={item.id} className={remembered.bag[i] === 0 ? "quiet" : ""}>
            <FixtureImage look={{ kind: "item", on: false, item }} size={16} />
            <span className="grow">{item.name}</span>
            <span className="mono">{remembered.bag[i]}</span>
          </li>
        ))}
        {world.items.length === 0 && <li className="quiet small">This world has no items.</li>}
      </ul>
      <dl className="run-facts">
        <dt>Status</dt>
        <dd>{status}</dd>
        {remembered.lives !== null && <dt>Lives</dt>}
        {remembered.lives !== null && <dd className="mono">{remembered.lives}</dd>}
        <dt>Respawn</dt>
        <dd>{checkpoint?.id ?? "the start"}</dd>
        {world.circuits.length > 0 && <dt>Circuits</dt>}
        {world.circuits.length > 0 && (
          <dd>
            {world.circuits.map((circuit, i) => `${circuit} ${remembered.on[i] === 1 ? "on" : "off"}`).join(", ")}
          </dd>
        )}
      </dl>
      <MemoryTable world={world} remembered={remembered} />
    </>
  );
}

/** Room by room what every fixture that changes is now, and what it will be after leaving and coming back, and after a respawn. */
export function MemoryTable({
  world,
  remembered,
  wide = false,
}: {
  readonly world: World;
  readonly remembered: Remembered;
  /** Room for what was at the start, too. */ readonly wide?: boolean;
}) {
  let number = -1;
  return (
    <Table className="memory" aria-label="What each room remembers">
      <thead>
        <tr>
          <th scope="col">Fixture</th>
          <th scope="col">Keeps</th>
          {wide && <th scope="col">Start</th>}
          <th scope="col">Now</th>
          <th scope="col">Back again</th>
          <th scope="col">After respawn</th>
        </tr>
      </thead>
      {world.rooms.map((room) => {
        const rows = room.fixtures
          .map((fixture) => ({ fixture, number: ++number }))
          .filter(({ fixture }) => changes(fixture));
        if (rows.length === 0) return null;
        return (
          <tbody key={room.id}>
            <tr>
              <th colSpan={wide ? 6 : 5} scope="rowgroup">
                {room.name}
              </th>
            </tr>
            {rows.map((row) => (
              <MemoryRow key={row.fixture.id} world={world} remembered={remembered} wide={wide} {...row} />
            ))}
          </tbody>
        );
      })}
    </Table>
  );
}

/** Whether a fixture has a state that a run can change. */
const changes = ({ kind }: Fixture): boolean => drawingOf(kind).state !== null;

function MemoryRow({
  world,
  remembered,
  wide,
  fixture,
  number,
}: {
  readonly world: World;
  readonly remembered: Remembered;
  readonly wide: boolean;
  readonly fixture: Fixture;
  readonly number: number;
}) {
  // What another `keeps` would do is shown while it is pointed at, before it is chosen.
  const [looked, setLooked] = useState<Fixture["keeps"] | null>(null);
  const keeps = looked ?? fixture.keeps;
  const first = stateText(world, fixture, null, number);
  const now = stateText(world, fixture, remembered, number);
  const returns = kindOfFixture(fixture.kind).returns(fixture);
  const back = returns && keeps === "visit" ? first : now;
  const after = returns && keeps === "life" ? first : now;
  return (
    <tr>
      <th scope="row">
        <FixtureImage look={lookOf(world, fixture, remembered, number)} size={14} /> {fixture.id}
      </th>
      {wide && returns ? (
        <td>
          <span
            className="keeps"
            role="radiogroup"
            aria-label={`What ${fixture.id} keeps for`}
            onMouseLeave={() => setLooked(null)}
          >
            {KEEPS.map((each) => (
              <button
                key={each}
                type="button"
                role="radio"
                aria-checked={fixture.keeps === each}
                onMouseEnter={() => setLooked(each)}
                onFocus={() => setLooked(each)}
                onBlur={() => setLooked(null)}
                onClick={() => session.fixtures.keepFor(fixture.id, each)}
              >
                {each}
              </button>
            ))}
          </span>
        </td>
      ) : (
        <td className="quiet">{returns ? fixture.keeps : ""}</td>
      )}
      {wide && <td>{first}</td>}
      <td className={now === first ? "" : "changed"}>{now}</td>
      <td className={back === now ? "quiet" : "attention"}>{back}</td>
      <td className={after === now ? "quiet" : "attention"}>{after}</td>
    </tr>
  );
}
