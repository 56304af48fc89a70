import { session } from "../page-session.ts";
import { hasSize, kindOfFixture, FIXTURE_KINDS, fixtureById } from "@keen-pebble/core/world";
import { drawingOf } from "../field/fixture-art.ts";
import type { Fixture, FixtureKindName, World } from "@keen-pebble/core/world";
import { SPREADS } from "../session/bench/bench-store.ts";
import type { Spread } from "../session/bench/bench-store.ts";
import { Segments } from "../look/segments.tsx";
import { SelectField } from "../look/select-field.tsx";
import { KIND_TYPE } from "../session/bench/placing.ts";
import { FixtureImage } from "../field/fixture-image.tsx";
import { lookOf } from "../field/fixture-looks.ts";
import { useBench } from "../use-session.ts";
import { FixtureSettings } from "./fixture-settings.tsx";
import { WorldThings } from "./world-things.tsx";
import { WorldFindings } from "./world-findings.tsx";
import "./fixtures.css";
import { BareButton } from "../look/bare-button.tsx";

/** What can be placed, what stands in the shown room, the settings of the chosen ones, and what they are about. */
export function FixturePanel({ world }: { readonly world: World }) {
  const roomId = useBench((state) => state.room);
  const placing = useBench((state) => (state.tool === "place" ? state.placing : null));
  const chosen = useBench((state) => state.fixtures);
  const room = world.rooms.find(({ id }) => id === roomId);
  const first = chosen[0] === undefined ? undefined : fixtureById(world, chosen[0])?.fixture;
  return (
    <>
      <Kinds placing={placing} />
      {placing === null ? (
        <p className="quiet small">Choose a kind, then click a cell. Drag moves, Shift chooses several.</p>
      ) : (
        <Placed world={world} kind={placing} />
      )}
      {first && <ChosenFixtures chosen={chosen} first={first} world={world} />}
      <ul className="fixture-list" aria-label="Fixtures of this room">
        {room?.fixtures.map((fixture) => (
          <li key={fixture.id}>
            <button
              type="button"
              aria-pressed={chosen.includes(fixture.id)}
              onClick={() => session.fixtures.chooseFixtures([fixture.id])}
            >
              <FixtureImage look={lookOf(world, fixture, null, 0)} size={16} />
              <span className="grow">{fixture.id}</span>
              <span className="mono quiet">{fixture.cell.join(",")}</span>
            </button>
          </li>
        ))}
        {room?.fixtures.length === 0 && <li className="quiet small">No fixture in {room.name} yet.</li>}
      </ul>
      <WorldFindings world={world} />
      <WorldThings world={world} />
    </>
  );
}

const SPREAD_NAMES = { one: "One", brush: "Brush", line: "Line", box: "Box" } as const;

/** What the next ones are about, and how many a stroke places. */
function Placed({ world, kind }: { readonly world: World; readonly kind: FixtureKindName }) {
  const spread = useBench((state) => state.spread);
  const about = useBench((state) => state.about);
  const { needs } = kindOfFixture(kind);
  const choices = needs === "item" ? world.items.map(({ id }) => id) : needs === "circuit" ? world.circuits : [];
  return (
    <>
      {choices.length > 1 && (
        <SelectField
          label={needs === "item" ? "Gives" : "Circuit"}
          value={about !== null && choices.includes(about) ? about : choices[0]!}
          choices={choices}
          onValue={session.placing.chooseAbout}
        />
      )}
      <Segments
        label="How many at once"
        choices={SPREADS.map((each) => ({ value: each, name: SPREAD_NAMES[each] }))}
        value={spread}
        onValue={session.placing.chooseSpread}
      />
      <p className="quiet small">{placingText(kind, spread)}</p>
    </>
  );
}

function placingText(kind: FixtureKindName, spread: Spread): string {
  const one = `${kind === "item" ? "an" : "a"} ${kind}`;
  switch (spread) {
    case "one":
      return hasSize({ kind })
        ? `Click a cell to place ${one}; drag to cover several cells.`
        : `Click a cell of the room to place ${one}.`;
    case "brush":
      return `Drag over the room: ${one} in each cell.`;
    case "line":
      return `Drag a line: ${one} in each of its cells.`;
    case "box":
      return `Drag a box: ${one} in each of its cells.`;
  }
}

/** The chosen ones and their settings. */
function ChosenFixtures({
  chosen,
  first,
  world,
}: {
  readonly chosen: readonly string[];
  readonly first: Fixture;
  readonly world: World;
}) {
  return (
    <section aria-label="Chosen fixture" className="chosen-fixture">
      <div className="row-line">
        <h3 className="grow">{chosen.length === 1 ? kindName(first) : `${chosen.length} chosen`}</h3>
        <BareButton icon="copy" name="Copy" onClick={session.fixtures.copyChosenFixtures} />
        <BareButton icon="bin" name="Delete" title="Delete (Delete)" onClick={session.fixtures.removeChosenFixtures} />
      </div>
      <FixtureSettings key={first.id} world={world} fixture={first} several={chosen.length > 1} />
    </section>
  );
}

/** What can be placed. */
function Kinds({ placing }: { readonly placing: FixtureKindName | null }) {
  return (
    <div className="kinds" role="radiogroup" aria-label="Place a fixture">
      {FIXTURE_KINDS.map((kind) => (
        <button
          key={kind}
          type="button"
          role="radio"
          aria-checked={placing === kind}
          draggable
          onDragStart={(event) => event.dataTransfer.setData(KIND_TYPE, kind)}
          onClick={() => session.placing.takeUpKind(placing === kind ? null : kind)}
        >
          <FixtureImage
            look={{
              kind,
              on: drawingOf(kind).shownOn === true,
              item: kindOfFixture(kind).needs === "item" ? { colour: "#c89b3c", role: "key" } : null,
            }}
            size={24}
          />
          {kindOfFixture(kind).label}
        </button>
      ))}
    </div>
  );
}

const kindName = ({ kind }: Fixture): string => kindOfFixture(kind).label;
