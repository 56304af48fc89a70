import { session } from "../page-session.ts";
import type { Look, World, Sheet } from "@keen-pebble/core/world";
import { useEffect, useRef } from "react";
import Form from "react-bootstrap/Form";
import { useStore } from "zustand";
import { sheetTiles } from "@keen-pebble/core/formats";
import { drawSheet, sheetZoom } from "./draw-sheet.ts";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";

const ONE = [1, 1] as const;

type SheetLook = Extract<Look, { sheet: string }>;

const CUTS = [
  ["tile", "Tile", 1],
  ["margin", "Margin", 0],
  ["spacing", "Spacing", 0],
] as const;

/** A place in an image sheet, chosen on its picture; and how the sheet is cut. */
export function SheetPlace({ world, look, onLook }: { readonly world: World } & Omit<PictureProps, "sheet" | "image">) {
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
      {image && <SheetPicture image={image} sheet={sheet} look={look} onLook={onLook} />}
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

interface PictureProps {
  readonly image: ImageBitmap;
  readonly sheet: Sheet;
  readonly look: SheetLook;
  readonly onLook: (look: Look) => void;
}

const BESIDE = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as const;

/** The sheet's picture with the chosen place framed; a click or the arrow keys choose another. */
function SheetPicture({ image, sheet, look, onLook }: PictureProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const zoom = sheetZoom(image);
  useEffect(
    () => drawSheet(canvas.current!, image, sheet, { at: look.at, size: ONE }, zoom),
    [image, sheet, look, zoom],
  );
  const put = (x: number, y: number): void => {
    const { across, down } = countOf(image, sheet);
    const inside = (n: number, max: number): number => Math.min(Math.max(n, 0), Math.max(max - 1, 0));
    onLook({ ...look, at: [inside(x, across), inside(y, down)] });
  };
  return (
    <canvas
      ref={canvas}
      className="sheet"
      width={Math.round(image.width * zoom)}
      height={Math.round(image.height * zoom)}
      tabIndex={0}
      role="button"
      aria-label={`Place in the sheet: column ${look.at[0]}, row ${look.at[1]}; arrow keys move it`}
      onClick={(event) => {
        // It may be drawn smaller than it is.
        const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
        const cell = (share: number, side: number): number =>
          Math.floor((share * side - sheet.margin) / (sheet.tile + sheet.spacing));
        put(cell((event.clientX - left) / width, image.width), cell((event.clientY - top) / height, image.height));
      }}
      onKeyDown={(event) => {
        const by = BESIDE[event.key as keyof typeof BESIDE];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        put(look.at[0] + by[0], look.at[1] + by[1]);
      }}
    />
  );
}

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
