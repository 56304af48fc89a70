import { session } from "../page-session.ts";
import type { Look, World } from "@keen-pebble/core/world";
import { useEffect, useRef } from "react";
import Form from "react-bootstrap/Form";
import { useStore } from "zustand";
import { sheetTiles } from "../session/bench/sheets.ts";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";

type SheetLook = Extract<Look, { sheet: string }>;

const CUTS = [
  ["tile", "Tile", 1],
  ["margin", "Margin", 0],
  ["spacing", "Spacing", 0],
] as const;
const MOST_SHOWN = 232;

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
  const canvas = useRef<HTMLCanvasElement>(null);
  const image = useStore(session.sheets.store, (state) => state.images.get(look.sheet));
  const sheet = world.sheets.find((each) => each.id === look.sheet);
  const zoom = image
    ? image.width <= MOST_SHOWN
      ? Math.floor(MOST_SHOWN / image.width)
      : MOST_SHOWN / image.width
    : 1;
  useEffect(() => {
    if (!image || !sheet) return;
    const c = canvas.current!.getContext("2d")!;
    c.imageSmoothingEnabled = false;
    c.clearRect(0, 0, canvas.current!.width, canvas.current!.height);
    c.drawImage(image, 0, 0, image.width * zoom, image.height * zoom);
    const at = (n: number): number => (sheet.margin + n * (sheet.tile + sheet.spacing)) * zoom;
    for (const [colour, grow] of [
      ["#fffdf6", 1],
      ["#0f6f6b", -1],
    ] as const) {
      c.strokeStyle = colour;
      c.lineWidth = 2;
      c.strokeRect(
        at(look.at[0]) - grow,
        at(look.at[1]) - grow,
        sheet.tile * zoom + 2 * grow,
        sheet.tile * zoom + 2 * grow,
      );
    }
  }, [image, sheet, look, zoom]);
  if (!sheet) return null;
  const { across, down, overX, overY } = image
    ? sheetTiles(image.width, image.height, sheet)
    : { across: 0, down: 0, overX: 0, overY: 0 };
  const put = (x: number, y: number): void => {
    const inside = (n: number, max: number): number => Math.min(Math.max(n, 0), Math.max(max - 1, 0));
    onLook({ ...look, at: [inside(x, across), inside(y, down)] });
  };
  const beside = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as const;
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
            const by = beside[event.key as keyof typeof beside];
            if (by === undefined) return;
            event.preventDefault();
            event.stopPropagation();
            put(look.at[0] + by[0], look.at[1] + by[1]);
          }}
        />
      )}
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
      <p className={`facts ${overX !== 0 || overY !== 0 ? "attention" : "quiet"}`}>
        {image ? `${across} x ${down} tiles` : "The picture is not here."}
        {(overX !== 0 || overY !== 0) && `, ${overX} and ${overY} px left over`}
      </p>
    </>
  );
}
