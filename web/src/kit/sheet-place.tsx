import { session } from "../page-session.ts";
import type { Look, World, Sheet } from "@keen-pebble/core/world";
import Form from "react-bootstrap/Form";
import { useStore } from "zustand";
import { sheetTiles } from "@keen-pebble/core/formats";
import { SheetRange } from "./sheet-range.tsx";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";

const ONE = [1, 1] as const;

type SheetLook = Extract<Look, { sheet: string }>;

const CUTS = [
  ["tile", "Tile", 1],
  ["margin", "Margin", 0],
  ["spacing", "Spacing", 0],
] as const;

/** A place in an image sheet, chosen on its picture; and how the sheet is cut. */
export function SheetPlace({
  world,
  look,
  onLook,
}: {
  readonly world: World;
  readonly look: SheetLook;
  readonly onLook: (look: Look) => void;
}) {
  const image = useStore(session.sheets.store, (state) => state.images.get(look.sheet));
  const sheet = world.sheets.find((each) => each.id === look.sheet);
  if (!sheet) return null;
  const { across, down, overX, overY } = countOf(image, sheet);
  return (
    <>
      <Form.Select
        aria-label="Sheet"
        value={look.sheet}
        onChange={(event) => onLook({ sheet: event.target.value, at: [0, 0] })}
      >
        {world.sheets.map((each) => (
          <option key={each.id} value={each.id}>
            {each.id}
          </option>
        ))}
      </Form.Select>
      {image && (
        <SheetRange
          image={image}
          sheet={sheet}
          chosen={{ at: look.at, size: ONE }}
          name="Place in the sheet"
          single
          onChoose={(at) => onLook({ ...look, at })}
        />
      )}
      <Cuts sheet={sheet} />
      <p className={`facts ${overX !== 0 || overY !== 0 ? "attention" : "quiet"}`}>
        {image ? `${across} x ${down} tiles` : "The picture is not here."}
        {(overX !== 0 || overY !== 0) && `, ${overX} and ${overY} px left over`}
      </p>
    </>
  );
}

const countOf = (image: ImageBitmap | undefined, sheet: Sheet) =>
  image ? sheetTiles(image.width, image.height, sheet) : { across: 0, down: 0, overX: 0, overY: 0 };

/** How the sheet is cut into tiles. */
function Cuts({ sheet }: { readonly sheet: Sheet }) {
  return (
    <div className="row-line">
      {CUTS.map(([key, label, min]) => (
        <TextField
          label={label}
          aria-label={`${label} of the sheet in px`}
          key={`${key} ${sheet.id} ${sheet[key]}`}
          inputMode="numeric"
          defaultValue={sheet[key]}
          onBlur={(event) => {
            const value = Number(event.target.value);
            if (/^\d{1,3}$/.test(event.target.value) && value >= min && value <= 512)
              session.sheets.cutSheet(sheet.id, { [key]: value });
            else event.target.value = String(sheet[key]);
          }}
          onKeyDown={leaveOnEnter}
        />
      ))}
    </div>
  );
}
