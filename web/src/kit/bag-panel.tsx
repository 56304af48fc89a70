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
  const afterRespawn = useBench((state) => state.explanation?.afterRespawn ?? null);
  const status = useBench((state) => state.explanation?.status ?? "playing");
  const frame = useBench((state) => state.frame);
  if (remembered === null || afterRespawn === null)
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
      <MemoryTable world={world} remembered={remembered} afterRespawn={afterRespawn} />
    </>
  );
}

/** Room by room what every fixture that changes is now, and what it will be after leaving and coming back, and after a respawn. */
export function MemoryTable({
  world,
  remembered,
  afterRespawn,
  wide = false,
}: {
  readonly world: World;
  readonly remembered: Remembered;
  readonly afterRespawn: Remembered;
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
              <MemoryRow
                key={row.fixture.id}
                world={world}
                remembered={remembered}
                afterRespawn={afterRespawn}
                wide={wide}
                {...row}
              />
            ))}
          </tbody>
        );
      })}
    </Table>
  );
}

/** Whether a fixture has a state that a run can change. */
const changes = ({ kind }: Fixture): boolean => drawingOf(kind).state !== null;

/** What a fixture is after a respawn; what another `keeps` would do is known only where it alone decides. */
function afterDeath(
  { respawnRestores }: World,
  fixture: Fixture,
  { keeps, first, now, died }: Readonly<Record<"keeps" | "first" | "now" | "died", string>>,
): string {
  const decides =
    kindOfFixture(fixture.kind).returns(fixture) && respawnRestores === "keeps" && keeps !== fixture.keeps;
  return decides ? (keeps === "life" ? first : now) : died;
}

function MemoryRow({
  world,
  remembered,
  afterRespawn,
  wide,
  fixture,
  number,
}: {
  readonly world: World;
  readonly remembered: Remembered;
  readonly afterRespawn: Remembered;
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
  const after = afterDeath(world, fixture, {
    keeps,
    first,
    now,
    died: stateText(world, fixture, afterRespawn, number),
  });
  return (
    <tr>
      <th scope="row">
        <FixtureImage look={lookOf(world, fixture, remembered, number)} size={14} /> {fixture.id}
      </th>
      {wide && returns ? (
        <td>
          <KeepsChoice fixture={fixture} onLook={setLooked} />
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

/** What a fixture keeps for; what another choice would do is shown while it is pointed at. */
function KeepsChoice({
  fixture,
  onLook,
}: {
  readonly fixture: Fixture;
  readonly onLook: (keeps: Fixture["keeps"] | null) => void;
}) {
  return (
    <span
      className="keeps"
      role="radiogroup"
      aria-label={`What ${fixture.id} keeps for`}
      onMouseLeave={() => onLook(null)}
    >
      {KEEPS.map((each) => (
        <button
          key={each}
          type="button"
          role="radio"
          aria-checked={fixture.keeps === each}
          onMouseEnter={() => onLook(each)}
          onFocus={() => onLook(each)}
          onBlur={() => onLook(null)}
          onClick={() => session.fixtures.keepFor(fixture.id, each)}
        >
          {each}
        </button>
      ))}
    </span>
  );
}
