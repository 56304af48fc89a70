import type { Look, Pattern, Tile, World } from "@keen-pebble/core";
import { PATTERNS } from "@keen-pebble/core";
import { useRef } from "react";
import Form from "react-bootstrap/Form";
import { endStroke } from "../session/project-store.ts";
import { changeChosen, setLook } from "../session/tiles.ts";

/** How the chosen tiles look: a colour, a pattern over it, or a place in an image sheet; and what they join with. */
export function LookEditor({ world, tiles }: { readonly world: World; readonly tiles: readonly Tile[] }) {
  const [tile] = tiles as readonly [Tile];
  const { look } = tile;
  const kind = "sheet" in look ? "image" : look.pattern ? "pattern" : "colour";
  const fill = "fill" in look ? look.fill : "#8d7f6f";
  const stroke = useRef("");
  const choose = (next: string): void => {
    const sheet = world.sheets[0];
    if (next === "colour") setLook({ fill });
    else if (next === "pattern") setLook({ fill, pattern: "flagstone" });
    else if (sheet) setLook({ sheet: sheet.id, at: [0, 0] });
  };
  return (
    <section className="kit-part" aria-label="Look">
      <div className="row-line">
        <h3 className="grow">Look</h3>
        <span className="quiet">{tile.joins === null ? "as it is" : `joins ${tile.joins.to}`}</span>
      </div>
      <div className="segments" role="radiogroup" aria-label="Kind of look">
        {(["colour", "pattern", "image"] as const).map((each) => (
          <button key={each} type="button" role="radio" aria-checked={kind === each} disabled={each === "image" && world.sheets.length === 0} title={each === "image" && world.sheets.length === 0 ? "This world has no image sheet" : undefined} onClick={() => kind !== each && choose(each)}>
            {each === "colour" ? "Colour" : each === "pattern" ? "Pattern" : "Image"}
          </button>
        ))}
      </div>
      {"fill" in look && (
        <div className="row-line">
          <label className="labelled colour">
            <span className="name">Colour</span>
            <input
              type="color"
              aria-label="Colour"
              value={look.fill}
              onFocus={() => (stroke.current = crypto.randomUUID())}
              onChange={(event) => setLook({ ...look, fill: event.target.value }, stroke.current)}
              onBlur={endStroke}
            />
          </label>
          {look.pattern && (
            <Form.Select aria-label="Pattern" value={look.pattern} onChange={(event) => setLook({ fill: look.fill, pattern: event.target.value as Pattern })}>
              {PATTERNS.map((pattern) => (
                <option key={pattern} value={pattern}>
                  {pattern}
                </option>
              ))}
            </Form.Select>
          )}
        </div>
      )}
      {"sheet" in look && <SheetPlace world={world} look={look} />}
    </section>
  );
}

function SheetPlace({ world, look }: { readonly world: World; readonly look: Extract<Look, { sheet: string }> }) {
  const put = (at: readonly [number, number]): boolean => changeChosen((tile) => ({ ...tile, look: { ...look, at } }));
  return (
    <div className="row-line">
      <Form.Select aria-label="Sheet" value={look.sheet} onChange={(event) => setLook({ ...look, sheet: event.target.value })}>
        {world.sheets.map((sheet) => (
          <option key={sheet.id} value={sheet.id}>
            {sheet.id}
          </option>
        ))}
      </Form.Select>
      {([0, 1] as const).map((axis) => (
        <label key={axis} className="labelled">
          <span className="name">{axis === 0 ? "column" : "row"}</span>
          <input type="number" min={0} max={4095} aria-label={axis === 0 ? "Column in the sheet" : "Row in the sheet"} value={look.at[axis]} onChange={(event) => /^\d{1,4}$/.test(event.target.value) && put(axis === 0 ? [Number(event.target.value), look.at[1]] : [look.at[0], Number(event.target.value)])} />
        </label>
      ))}
    </div>
  );
}
