import { session } from "../page-session.ts";
import type { Field, Place, Fixture, Lock, World } from "@keen-pebble/core/world";
import { opensByItself, fieldsOf, TOUCHES, KEEPS, kindOfFixture, sizeOf, withSize } from "@keen-pebble/core/world";
import { IdField } from "./id-field.tsx";
import { KitField } from "./kit-field.tsx";
import { SelectField } from "../look/select-field.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";

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
      {!several && <IdField key={fixture.id} id={fixture.id} of="the fixture" onId={session.fixtures.renameChosen} />}
      {!several && <KindSettings world={world} fixture={fixture} />}
      {(several || kindOfFixture(fixture.kind).returns(fixture) || kindOfFixture(fixture.kind).alone) && (
        <SelectField
          label="Keeps"
          value={fixture.keeps}
          choices={KEEPS}
          onValue={(keeps) => session.fixtures.changeChosen((each) => ({ ...each, keeps: keeps as Fixture["keeps"] }))}
        />
      )}
      {(several || kindOfFixture(fixture.kind).touched) && (
        <SelectField
          label="Touch"
          value={fixture.touch}
          choices={TOUCHES}
          onValue={(touch) => session.fixtures.changeChosen((each) => ({ ...each, touch: touch as Fixture["touch"] }))}
        />
      )}
      <p className="quiet small">{KEEPS_TEXT[fixture.keeps]}</p>
    </div>
  );
}

const KEEPS_TEXT = {
  run: "What happens to it stays for the whole run.",
  visit: "It is as at the start again when the walker leaves the room.",
  life: "It is as at the start again when the walker respawns.",
} as const;

/** The fields of a kind, each by what it may be (`core/src/world/field.ts`). */
function KindSettings({ world, fixture }: Omit<Props, "several">) {
  const values = fixture as unknown as Record<string, unknown>;
  return Object.entries(fieldsOf(fixture.kind)).map(([name, field]) =>
    fixture.kind === "door" && name !== "lock" && opensByItself(fixture) ? null : (
      <FieldSetting
        key={name}
        world={world}
        fixture={fixture}
        field={field}
        value={values[name]}
        onValue={(value, stroke) => session.fixtures.changeChosen((each) => ({ ...each, [name]: value }), stroke)}
      />
    ),
  );
}

interface FieldProps {
  readonly world: World;
  readonly fixture: Fixture;
  readonly field: Field;
  readonly value: unknown;
  readonly onValue: (value: unknown, stroke?: string) => void;
}

function FieldSetting({ world, fixture, field, value, onValue }: FieldProps): React.ReactNode {
  const { label } = field;
  switch (field.type) {
    case "reference":
      return (
        <SelectField
          label={label}
          value={value as string}
          choices={field.to === "item" ? world.items.map(({ id }) => id) : world.circuits}
          onValue={onValue}
        />
      );
    case "whole":
      return <KitField label={label} range={field.range} value={value as number} onValue={onValue} />;
    case "switch":
      return <ToggleField label={label} value={value as boolean} onValue={onValue} />;
    case "choice":
      return (
        <div className="wide">
          <SelectField label={label} value={value as string} choices={field.choices} onValue={onValue} />
        </div>
      );
    case "name":
      return <NameField key={fixture.id} label={label} value={value as string} onValue={onValue} />;
    case "place":
      return <PlaceFields world={world} label={label} value={value as Place} onValue={onValue} />;
    case "size":
      return <SizeFields world={world} fixture={fixture} />;
    case "kinds": {
      const values = value as { readonly kind: string } & Record<string, unknown>;
      return (
        <>
          <SelectField
            label={label}
            value={values.kind}
            choices={Object.keys(field.kinds)}
            onValue={(kind) => session.fixtures.chooseLock(kind as Lock["kind"])}
          />
          {Object.entries(field.kinds[values.kind]!).map(([name, inner]) => (
            <FieldSetting
              key={name}
              world={world}
              fixture={fixture}
              field={inner}
              value={values[name]}
              onValue={(next, stroke) => onValue({ ...values, [name]: next }, stroke)}
            />
          ))}
        </>
      );
    }
  }
}

/** How many cells it covers, as far as the room goes. */
function SizeFields({ world, fixture }: Pick<FieldProps, "world" | "fixture">) {
  const room = world.rooms.find(({ fixtures }) => fixtures.some(({ id }) => id === fixture.id));
  if (room === undefined) return null;
  const [across, down] = sizeOf(fixture);
  const set = (size: readonly [number, number], stroke?: string): void =>
    session.fixtures.changeChosen((each) => (each.id === fixture.id ? withSize(each, size) : each), stroke);
  return (
    <>
      <KitField
        label="Cells across"
        range={[1, room.width - fixture.cell[0]]}
        value={across}
        onValue={(value, stroke) => set([value, down], stroke)}
      />
      <KitField
        label="Cells down"
        range={[1, room.height - fixture.cell[1]]}
        value={down}
        onValue={(value, stroke) => set([across, value], stroke)}
      />
    </>
  );
}

function NameField({
  label,
  value,
  onValue,
}: {
  readonly label: string;
  readonly value: string;
  readonly onValue: (value: string) => void;
}) {
  return (
    <TextField
      label={label}
      defaultValue={value}
      aria-label="Name of the place"
      maxLength={80}
      onBlur={(event) => {
        const name = event.target.value.trim();
        if (name === "") event.target.value = value;
        else if (name !== value) onValue(name);
      }}
      onKeyDown={leaveOnEnter}
    />
  );
}

function PlaceFields({
  world,
  label,
  value,
  onValue,
}: {
  readonly world: World;
  readonly label: string;
  readonly value: Place;
  readonly onValue: (value: Place, stroke?: string) => void;
}) {
  const room = world.rooms.find(({ id }) => id === value.room);
  const [column, row] = value.cell;
  return (
    <>
      <SelectField
        label={`${label} room`}
        value={value.room}
        choices={world.rooms.map(({ id }) => id)}
        onValue={(to) => onValue({ ...value, room: to, cell: [0, 0] })}
      />
      <KitField
        label="Column"
        range={[0, (room?.width ?? 1) - 1]}
        value={column}
        onValue={(x, stroke) => onValue({ ...value, cell: [x, row] }, stroke)}
      />
      <KitField
        label="Row"
        range={[0, (room?.height ?? 1) - 1]}
        value={row}
        onValue={(y, stroke) => onValue({ ...value, cell: [column, y] }, stroke)}
      />
    </>
  );
}
