import { NEVER, UNDECIDED } from "@keen-pebble/core/analyse";
import type { World } from "@keen-pebble/core/world";
import { allFixtures } from "@keen-pebble/core/world";
import { useStore } from "zustand";
import { FixtureImage } from "../../field/fixture-image.tsx";
import { lookOf } from "../../field/fixture-looks.ts";
import { Segments } from "../../look/segments.tsx";
import { session } from "../../page-session.ts";
import type { ThingList as Listed } from "../../session/reach/reach.ts";
import { LISTS } from "../../session/reach/reach.ts";
import type { ReachShown } from "../../workers/reach.ts";

/** The things of the world with the moves to each, or why it is never reached. */
export function ThingList({ world, shown }: { readonly world: World; readonly shown: ReachShown }) {
  const list = useStore(session.reach.store, (state) => state.list);
  const title = useStore(session.reach.store, (state) => state.way?.title ?? null);
  const { answer, reasons, untested } = shown;
  const rooms = new Map(world.rooms.flatMap((room) => room.fixtures.map(({ id }) => [id, room.name] as const)));
  const things = allFixtures(world).map((fixture, i) => ({ fixture, i, n: answer.fixtures[i]! }));
  const isUntested = new Set(untested.fixtures);
  const cells = untested.cells.reduce((sum, each) => sum + each.length, 0);
  const listed = {
    all: things,
    never: things.filter(({ n }) => n < 0),
    untested: things.filter(({ fixture }) => isUntested.has(fixture.id)),
  };
  // What cannot be reached comes first: it is what one looks for.
  const order = (n: number): number => (n === NEVER ? -2 : n === UNDECIDED ? -1 : n);
  const rows = [...listed[list]].sort((a, b) => order(a.n) - order(b.n));
  return (
    <section className="reach-things" aria-label="Things">
      <div className="row-line">
        <h2 className="grow">Things</h2>
        <Segments
          label="Things listed"
          value={list}
          choices={LISTS.map((each) => ({
            value: each,
            name: `${{ all: "All", never: "Never", untested: "Untested" }[each]} ${listed[each].length}`,
          }))}
          onValue={session.reach.chooseList}
        />
      </div>
      <ListNote list={list} listed={rows.length} cells={cells} />
      <ul>
        {rows.map(({ fixture, i, n }) => (
          <li key={fixture.id}>
            <button
              type="button"
              aria-pressed={title === fixture.id}
              onClick={() => void session.reach.showWay(fixture.id, { kind: "fixture", fixture: i })}
            >
              <FixtureImage look={lookOf(world, fixture, null, 0)} size={16} />
              <span className="thing">{fixture.id}</span>
              <span className="quiet room">{rooms.get(fixture.id)}</span>
              <span className="mono">{n === NEVER ? "never" : n === UNDECIDED ? "open" : n}</span>
              {reasons[i] != null && <span className="reason">{reasons[i]}</span>}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What an empty list means, and what to do with one that is not. */
function ListNote({ list, listed, cells }: { readonly list: Listed; readonly listed: number; readonly cells: number }) {
  const text = {
    all: listed === 0 ? "This world has no fixtures." : "",
    never: listed === 0 ? "All of them can be reached." : "",
    untested:
      listed === 0 && cells === 0
        ? "Every thing and cell that can be reached is reached by a log."
        : `No log reaches ${listed === 0 ? "" : "these, nor "}${cells} of the cells. Keep the way there as a log.`,
  }[list];
  return text === "" ? null : <p className="quiet small">{text}</p>;
}
