import { session } from "../page-session.ts";
import type { Tile, World } from "@keen-pebble/core/world";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";

/** Name, glyph and use of the chosen tile, or how many are chosen. */
export function TileFacts({
  world,
  tiles,
  uses,
}: {
  readonly world: World;
  readonly tiles: readonly Tile[];
  readonly uses: Uint32Array;
}) {
  const cells = world.tiles.reduce((sum, tile, i) => (tiles.includes(tile) ? sum + uses[i]! : sum), 0);
  const [tile] = tiles;
  if (tiles.length > 1 || !tile) {
    return (
      <p className="row-line tile-facts">
        <strong className="grow">{tiles.length} tiles chosen</strong>
        <span className="quiet">{cells} cells</span>
      </p>
    );
  }
  const taken = (glyph: string): boolean => world.tiles.some((each) => each !== tile && each.glyph === glyph);
  return (
    <div className="row-line tile-facts">
      <TextField
        label="Name"
        quietLabel
        className="grow"
        face="tile-name"
        defaultValue={tile.name}
        key={tile.name}
        maxLength={80}
        onBlur={(event) => {
          const name = event.target.value.trim();
          if (name !== "" && name !== tile.name) session.tiles.changeChosen((each) => ({ ...each, name }));
        }}
        onKeyDown={leaveOnEnter}
      >
        <span className="quiet">{cells} cells</span>
      </TextField>
      <TextField
        label="Glyph"
        className="glyph"
        defaultValue={tile.glyph ?? ""}
        key={`${tile.id} ${tile.glyph}`}
        onInput={(event) => {
          const last = [...event.currentTarget.value.trim()].at(-1) ?? "";
          event.currentTarget.value = last;
          const glyph = last === "" ? null : last;
          if (glyph !== tile.glyph && (glyph === null || !taken(glyph)))
            session.tiles.changeChosen((each) => ({ ...each, glyph }));
        }}
      />
    </div>
  );
}
