import type { Facing, Pair, World } from "@keen-pebble/core/world";
import { FACINGS } from "@keen-pebble/core/world";
import type { FigurePlaces } from "@keen-pebble/core/edit";
import { FACING_ORDERS } from "@keen-pebble/core/edit";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { WalkingImages } from "../field/walking-images.tsx";
import { FileButton } from "../look/file-button.tsx";
import { Icon } from "../look/icon.tsx";
import { plural } from "../look/plural.ts";
import { Segments } from "../look/segments.tsx";
import { SelectField } from "../look/select-field.tsx";
import { session } from "../page-session.ts";
import { KitField } from "./kit-field.tsx";
import { SheetRange } from "./sheet-range.tsx";

/** The walker's pictures: chosen by dragging over a sheet, a row or a column for each facing, and seen walking. */
export function FigurePanel({ world }: { readonly world: World }) {
  const { figure } = world;
  return (
    <section className="kit-part" aria-label="Walker's pictures">
      <div className="row-line">
        <h3 className="grow">Walker</h3>
        <FileButton
          name="Sheet with the walker"
          accept=".png"
          variant="bare"
          className="text-button"
          onFiles={([file]) => void session.sheets.bringInSheet(file!)}
        >
          <Icon name="bringIn" /> sheet
        </FileButton>
      </div>
      <WalkingImages world={world} />
      {world.sheets.length === 0 ? (
        <p className="quiet small">The default walker. Bring in a sheet (PNG) to give it pictures of your own.</p>
      ) : (
        <Chooser world={world} />
      )}
      {figure !== null && <Drawn world={world} figure={figure} />}
    </section>
  );
}

type Figure = NonNullable<World["figure"]>;

/** How far pictures may be from their cell, in px. */
const FAR = [-512, 512] as const;

/** How many pictures a facing has, where they are drawn, and away with them. */
function Drawn({ world, figure }: { readonly world: World; readonly figure: Figure }) {
  const [x, y] = figure.offset;
  const rules = world.rules.find(({ id }) => id === world.activeRules)!;
  const images = Math.max(...Object.values(figure.images).map((places) => places.length));
  return (
    <>
      <div className="pair">
        <KitField
          label="Right"
          range={FAR}
          unit="px"
          value={x}
          onValue={(next, stroke) => session.worldSettings.setFigureOffset([next, y], stroke)}
        />
        <KitField
          label="Down"
          range={FAR}
          unit="px"
          value={y}
          onValue={(next, stroke) => session.worldSettings.setFigureOffset([x, next], stroke)}
        />
      </div>
      {rules.pose.images !== images && (
        <div className="row-line">
          <span className="grow small">
            {rules.name} goes through {plural(rules.pose.images, "image")}, these are {images}.
          </span>
          <Button variant="plain" onClick={() => session.worldSettings.setPoseImages(images)}>
            Use {images}
          </Button>
        </div>
      )}
      <Button variant="plain" onClick={session.worldSettings.removeFigure}>
        Use the default walker
      </Button>
    </>
  );
}

/** The longest first. */
const ORDERS = Object.values(FACING_ORDERS).sort((a, b) => b.length - a.length);

/** The sheet, what is chosen on it, and which row or column is which facing. */
function Chooser({ world }: { readonly world: World }) {
  const images = useStore(session.sheets.store, (state) => state.images);
  const [id, setId] = useState(world.figure?.sheet ?? world.sheets[0]!.id);
  const [along, setAlong] = useState<FigurePlaces["along"]>("rows");
  const sheet = world.sheets.find((each) => each.id === id) ?? world.sheets[0]!;
  const image = images.get(sheet.id);
  const chosen = world.figure?.sheet === sheet.id ? rangeOf(world.figure) : null;
  const facings = world.figure === null || chosen === null ? [] : facingsOf(world.figure, chosen, along);
  const choose = (at: Pair, size: Pair, way: FigurePlaces["along"], stroke?: string): void => {
    const lines = way === "rows" ? size[1] : size[0];
    const order = ORDERS.find((each) => each.length <= lines)!;
    // As many as before keep the facings that they had.
    const kept = way === along && facings.length === order.length ? facings : order;
    session.worldSettings.setFigure({ sheet: sheet.id, at, size, along: way, facings: kept }, stroke);
  };
  const face = (line: number, facing: Facing): void => {
    const other = facings.indexOf(facing);
    const changed = facings.map((each, i) => (i === line ? facing : i === other ? facings[line]! : each));
    session.worldSettings.setFigure({ sheet: sheet.id, ...chosen!, along, facings: changed });
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
          name="Places of the walker"
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
      <p className="quiet small">Drag over the places of the walker: 1, 2, 4 or 8 facings.</p>
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
