import type { FigurePlaces } from "@keen-pebble/core/edit";
import { FACING_ORDERS } from "@keen-pebble/core/edit";
import type { Facing, Figure, Pair, World } from "@keen-pebble/core/world";
import { FACINGS } from "@keen-pebble/core/world";
import { useState } from "react";
import { useStore } from "zustand";
import { Segments } from "../look/segments.tsx";
import { SelectField } from "../look/select-field.tsx";
import { session } from "../page-session.ts";
import { SheetRange } from "./sheet-range.tsx";

/** The longest first. */
const ORDERS = Object.values(FACING_ORDERS).sort((a, b) => b.length - a.length);

interface Props {
  readonly world: World;
  readonly figure: Figure | null;
  /** Whose pictures they are. */
  readonly name: string;
  /** A row of changes in one stroke is undone as one. */
  readonly onFigure: (places: FigurePlaces, stroke?: string) => void;
}

/** Pictures for each facing: the sheet, what is chosen on it by dragging, and which row or column is which facing. */
export function FacingImages({ world, figure, name, onFigure }: Props) {
  const images = useStore(session.sheets.store, (state) => state.images);
  const [id, setId] = useState(figure?.sheet ?? world.sheets[0]!.id);
  const [along, setAlong] = useState<FigurePlaces["along"]>("rows");
  const sheet = world.sheets.find((each) => each.id === id) ?? world.sheets[0]!;
  const image = images.get(sheet.id);
  const chosen = figure?.sheet === sheet.id ? rangeOf(figure) : null;
  const facings = figure === null || chosen === null ? [] : facingsOf(figure, chosen, along);
  const choose = (at: Pair, size: Pair, way: FigurePlaces["along"], stroke?: string): void => {
    const lines = way === "rows" ? size[1] : size[0];
    const order = ORDERS.find((each) => each.length <= lines)!;
    // As many as before keep the facings that they had.
    const kept = way === along && facings.length === order.length ? facings : order;
    onFigure({ sheet: sheet.id, at, size, along: way, facings: kept }, stroke);
  };
  const face = (line: number, facing: Facing): void => {
    const other = facings.indexOf(facing);
    const changed = facings.map((each, i) => (i === line ? facing : i === other ? facings[line]! : each));
    onFigure({ sheet: sheet.id, ...chosen!, along, facings: changed });
  };
  return (
    <>
      {world.sheets.length > 1 && (
        <SelectField label="Sheet" value={sheet.id} choices={world.sheets.map((each) => each.id)} onValue={setId} />
      )}
      {image === undefined ? (
        <p className="quiet small">The picture of {sheet.file} is not here.</p>
      ) : (
        <SheetRange
          image={image}
          sheet={sheet}
          chosen={chosen}
          name={`Places of ${name}`}
          onChoose={(at, size, stroke) => choose(at, size, along, stroke)}
          onChosen={session.project.endStroke}
        />
      )}
      <Segments
        label="A facing is"
        value={along}
        choices={[
          { value: "rows", name: "A row each" },
          { value: "columns", name: "A column each" },
        ]}
        onValue={(way) => {
          setAlong(way);
          if (chosen !== null) choose(chosen.at, chosen.size, way);
        }}
      />
      <p className="quiet small">Drag over the places of {name}: 1, 2, 4 or 8 facings.</p>
      <Lines along={along} facings={facings} onFace={face} />
    </>
  );
}

/** Which facing each row or column is; two change places. */
function Lines({
  along,
  facings,
  onFace,
}: {
  readonly along: FigurePlaces["along"];
  readonly facings: readonly Facing[];
  readonly onFace: (line: number, facing: Facing) => void;
}) {
  if (facings.length < 2) return null;
  return (
    <div className="pair">
      {facings.map((facing, line) => (
        <SelectField
          key={facing}
          label={`${along === "rows" ? "Row" : "Col."} ${line + 1}`}
          value={facing}
          choices={facings.map((each) => [each, each.replace("-", " ")])}
          onValue={(chosen) => onFace(line, chosen as Facing)}
        />
      ))}
    </div>
  );
}

/** The facing of each row, or column, of a figure; none where one of them has none. */
function facingsOf({ images }: Figure, { at, size }: Range, along: FigurePlaces["along"]): readonly Facing[] {
  const axis = along === "rows" ? 1 : 0;
  const lines = Array.from({ length: size[axis] }, (_, line) =>
    FACINGS.find((facing) => images[facing]?.every((place) => place[axis] === at[axis] + line)),
  );
  return lines.flatMap((facing) => facing ?? []);
}

interface Range {
  readonly at: Pair;
  readonly size: Pair;
}

/** The rectangle of places that a figure takes. */
function rangeOf({ images }: Figure): Range {
  const places = Object.values(images).flat();
  const [columns, rows] = [places.map(([x]) => x), places.map(([, y]) => y)];
  const [left, top] = [Math.min(...columns), Math.min(...rows)];
  return { at: [left, top], size: [Math.max(...columns) - left + 1, Math.max(...rows) - top + 1] };
}
