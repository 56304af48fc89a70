import type { Fixture, Lock, World } from "@keen-pebble/core/world";
import { LIMITS } from "@keen-pebble/core/world";
import { useState } from "react";
import { NumberField } from "../look/number-field.tsx";
import { SelectField } from "../look/select-field.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { changeChosen, chooseLock, renameChosen } from "../session/fixtures.ts";
import { endStroke } from "../session/project-store.ts";

interface Props {
  readonly world: World;
  readonly fixture: Fixture;
  /** More than one is chosen: only what all of them have is shown. */
  readonly several: boolean;
}

/** The settings of a chosen fixture; with several chosen, those that every fixture has. */
export function FixtureSettings({ world, fixture, several }: Props) {
  return (
    <div className="fixture-settings">
      {!several && <IdField id={fixture.id} />}
      {!several && <KindSettings world={world} fixture={fixture} />}
      {(several || !STILL.includes(fixture.kind)) && (
        <SelectField label="Keeps" value={fixture.keeps} choices={["run", "visit", "life"]} onValue={(keeps) => changeChosen((each) => ({ ...each, keeps: keeps as Fixture["keeps"] }))} />
      )}
      {(several || fixture.kind !== "door") && <SelectField label="Touch" value={fixture.touch} choices={["cell", "body"]} onValue={(touch) => changeChosen((each) => ({ ...each, touch: touch as Fixture["touch"] }))} />}
      <p className="quiet small">{KEEPS_TEXT[fixture.keeps]}</p>
    </div>
  );
}

/** Kinds that have nothing to return. */
const STILL: readonly Fixture["kind"][] = ["hazard", "checkpoint", "portal", "marker"];

const KEEPS_TEXT = {
  run: "What happens to it stays for the whole run.",
  visit: "It is as at the start again when the walker leaves the room.",
  life: "It is as at the start again when the walker respawns.",
} as const;

function IdField({ id }: { readonly id: string }) {
  const [draft, setDraft] = useState(id);
  return (
    <label className="labelled">
      <span className="name">Id</span>
      <input
        value={draft}
        aria-label="Id of the fixture"
        maxLength={40}
        spellCheck={false}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={() => renameChosen(id, draft.trim())}
        onKeyDown={(event) => {
          if (event.key === "Enter") event.currentTarget.blur();
          else if (event.key === "Escape") setDraft(id);
        }}
      />
    </label>
  );
}

function KindSettings({ world, fixture }: Omit<Props, "several">) {
  const items = world.items.map(({ id }) => id);
  const whole = (label: string, value: number, set: (value: number) => Fixture) => (
    <NumberField label={label} range={{ min: LIMITS.count[0], max: LIMITS.count[1], whole: true }} value={value} step={1} onValue={(next) => (changeChosen(() => set(next)), true)} onStrokeEnd={endStroke} />
  );
  switch (fixture.kind) {
    case "item":
      return (
        <>
          <SelectField label="Gives" value={fixture.give} choices={items} onValue={(give) => changeChosen(() => ({ ...fixture, give }))} />
          {whole("Count", fixture.count, (count) => ({ ...fixture, count }))}
        </>
      );
    case "switch":
      return <SelectField label="Circuit" value={fixture.circuit} choices={world.circuits} onValue={(circuit) => changeChosen(() => ({ ...fixture, circuit }))} />;
    case "marker":
      return (
        <label className="labelled">
          <span className="name">Name</span>
          <input
            key={fixture.id}
            defaultValue={fixture.name}
            aria-label="Name of the place"
            maxLength={80}
            onBlur={(event) => {
              const name = event.target.value.trim();
              if (name === "") event.target.value = fixture.name;
              else if (name !== fixture.name) changeChosen(() => ({ ...fixture, name }));
            }}
            onKeyDown={(event) => event.key === "Enter" && event.currentTarget.blur()}
          />
        </label>
      );
    case "portal":
      return (
        <>
          <SelectField label="To room" value={fixture.to.room} choices={world.rooms.map(({ id }) => id)} onValue={(room) => changeChosen(() => ({ ...fixture, to: { ...fixture.to, room, cell: [0, 0] } }))} />
          <Place world={world} fixture={fixture} axis={0} />
          <Place world={world} fixture={fixture} axis={1} />
        </>
      );
    case "door":
      return <DoorSettings world={world} fixture={fixture} whole={whole} />;
    case "hazard":
    case "checkpoint":
      return null;
  }
}

type Portal = Extract<Fixture, { kind: "portal" }>;
type Door = Extract<Fixture, { kind: "door" }>;

function Place({ world, fixture, axis }: { readonly world: World; readonly fixture: Portal; readonly axis: 0 | 1 }) {
  const room = world.rooms.find(({ id }) => id === fixture.to.room);
  const max = (axis === 0 ? room?.width : room?.height) ?? 1;
  const set = (value: number): boolean => {
    const cell = axis === 0 ? ([value, fixture.to.cell[1]] as const) : ([fixture.to.cell[0], value] as const);
    changeChosen(() => ({ ...fixture, to: { ...fixture.to, cell } }));
    return true;
  };
  return <NumberField label={axis === 0 ? "Column" : "Row"} range={{ min: 0, max: max - 1, whole: true }} value={fixture.to.cell[axis]} step={1} onValue={set} onStrokeEnd={endStroke} />;
}

function DoorSettings({ world, fixture, whole }: { readonly world: World; readonly fixture: Door; readonly whole: (label: string, value: number, set: (value: number) => Fixture) => React.ReactNode }) {
  const { lock } = fixture;
  const items = world.items.map(({ id }) => id);
  const setLock = (next: Lock): void => changeChosen((each) => ({ ...each, lock: next }) as Fixture);
  const byItself = lock.kind === "circuit" || lock.kind === "collected";
  return (
    <>
      <SelectField label="Lock" value={lock.kind} choices={["none", "item", "circuit", "collected"]} onValue={(kind) => chooseLock(kind as Lock["kind"])} />
      {(lock.kind === "item" || lock.kind === "collected") && <SelectField label={lock.kind === "item" ? "Asks for" : "All of"} value={lock.item} choices={items} onValue={(item) => setLock({ ...lock, item })} />}
      {lock.kind === "item" && whole("Count", lock.count, (count) => ({ ...fixture, lock: { ...lock, count } }))}
      {lock.kind === "item" && <ToggleField label="Spends" value={lock.spends} onValue={(spends) => setLock({ ...lock, spends })} />}
      {lock.kind === "circuit" && <SelectField label="Circuit" value={lock.circuit} choices={world.circuits} onValue={(circuit) => setLock({ ...lock, circuit })} />}
      {lock.kind === "circuit" && <SelectField label="Open while" value={lock.open} choices={["on", "off"]} onValue={(open) => setLock({ ...lock, open: open as "on" | "off" })} />}
      {!byItself && (
        <div className="wide">
          <SelectField label="Opens on" value={fixture.opensOn} choices={["push", "use"]} onValue={(opensOn) => changeChosen((each) => ({ ...each, opensOn }) as Fixture)} />
        </div>
      )}
      {!byItself && (
        <div className="wide">
          <SelectField label="Closes" value={fixture.closes} choices={["never", "behind"]} onValue={(closes) => changeChosen((each) => ({ ...each, closes }) as Fixture)} />
        </div>
      )}
    </>
  );
}
