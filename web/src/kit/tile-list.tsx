import { session } from "../page-session.ts";
import type { World, Tile } from "@keen-pebble/core/world";
import { isCutTile } from "@keen-pebble/core/edit";
import { plural } from "../look/plural.ts";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Dropdown from "react-bootstrap/Dropdown";
import { Icon } from "../look/icon.tsx";
import { useBench } from "../use-session.ts";
import { TileSwatch } from "./tile-swatch.tsx";
import Form from "react-bootstrap/Form";
import { BareButton } from "../look/bare-button.tsx";

/** More tiles than this get a field to search in. */
const SEARCH_FROM = 13;

/** All tiles as swatches. A click chooses one to paint with; Ctrl and Shift choose several. */
export function TileList({ world, uses }: { readonly world: World; readonly uses: Uint32Array }) {
  const tile = useBench((state) => state.tile);
  const chosen = useBench((state) => state.chosenTiles);
  const [sought, setSought] = useState("");
  const [unfolded, setUnfolded] = useState(false);
  const cut = world.tiles.filter((each) => isCutTile(each) && !chosen.includes(each.id)).length;
  const blockedBy = world.rules.find((rules) => rules.id === world.activeRules)?.walker.blockedBy ?? [];
  const words = sought.trim().toLowerCase();
  const at = world.tiles.findIndex((each) => each.id === tile);
  const used = world.tiles.reduce((sum, each, i) => (chosen.includes(each.id) ? sum + uses[i]! : sum), 0);
  return (
    <>
      <ListTools world={world} sought={sought} setSought={setSought} at={at} chosen={chosen} used={used} />
      <div className="swatches" role="listbox" aria-label="Tiles" aria-multiselectable="true">
        {world.tiles.map((each, i) => {
          if (words !== "" && !`${each.name} ${each.id} ${each.flags.join(" ")}`.toLowerCase().includes(words))
            return null;
          // A wall is cut into many; they are found where they lie.
          if (!unfolded && words === "" && isCutTile(each) && !chosen.includes(each.id)) return null;
          return (
            <Swatch key={each.id} each={each} tile={tile} chosen={chosen} world={world} i={i} blockedBy={blockedBy} />
          );
        })}
      </div>
      {cut > 0 && words === "" && (
        <Button variant="bare" className="text-button" aria-expanded={unfolded} onClick={() => setUnfolded(!unfolded)}>
          {unfolded ? "Hide" : "Show"} {plural(cut, "cut tile")}
        </Button>
      )}
    </>
  );
}

/** The field to search in, and what can be done with the chosen tiles. */
function ListTools({
  world,
  sought,
  setSought,
  at,
  chosen,
  used,
}: {
  readonly world: World;
  readonly sought: string;
  readonly setSought: React.Dispatch<React.SetStateAction<string>>;
  readonly at: number;
  readonly chosen: readonly string[];
  readonly used: number;
}) {
  return (
    <div className="row-line">
      {world.tiles.length >= SEARCH_FROM ? (
        <Form.Control
          type="search"
          className="grow"
          aria-label="Search tiles"
          title="Name, id or flag"
          placeholder="Find"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
      ) : (
        <span className="quiet grow">{world.tiles.length} tiles</span>
      )}
      <BareButton icon="plus" name="New tile" onClick={session.tiles.makeTile} />
      <BareButton icon="copy" name="Copy this tile" onClick={session.tiles.copyChosenTile} />
      <BareButton
        icon="back"
        name="Move back in the list"
        disabled={at < 2}
        onClick={() => session.tiles.moveChosenTile(-1)}
      />
      <BareButton
        icon="forward"
        name="Move on in the list"
        disabled={at < 1 || at === world.tiles.length - 1}
        onClick={() => session.tiles.moveChosenTile(1)}
      />
      <RemoveTiles world={world} chosen={chosen} used={used} />
    </div>
  );
}

/** One tile, to be chosen. */
function Swatch({
  each,
  tile,
  chosen,
  world,
  i,
  blockedBy,
}: {
  readonly each: Tile;
  readonly tile: string;
  readonly chosen: readonly string[];
  readonly world: World;
  readonly i: number;
  readonly blockedBy: readonly string[];
}) {
  return (
    <button
      type="button"
      role="option"
      className={each.id === tile ? "painting" : ""}
      aria-selected={chosen.includes(each.id)}
      aria-label={`${each.name}${each.flags.length > 0 ? `, ${each.flags.join(", ")}` : ""}`}
      title={each.name}
      onClick={(event) =>
        session.chosen.chooseTile(each.id, event.shiftKey ? "range" : event.ctrlKey || event.metaKey ? "also" : "only")
      }
    >
      <TileSwatch source={world} tile={i} size={32} />
      {each.flags.length > 0 && (
        <span className="marks" aria-hidden="true">
          {each.flags.slice(0, 4).map((flag) => (
            <i key={flag} className={blockedBy.includes(flag) ? "blocking" : ""} />
          ))}
        </span>
      )}
    </button>
  );
}

/** Takes the chosen tiles away: at once where no cell has them, else for another tile in their place. */
function RemoveTiles({
  world,
  chosen,
  used,
}: {
  readonly world: World;
  readonly chosen: readonly string[];
  readonly used: number;
}) {
  const empty = world.tiles[0]!.id;
  const can = chosen.some((id) => id !== empty);
  const name = chosen.length > 1 ? "Delete these tiles" : "Delete this tile";
  if (used === 0) {
    return <BareButton icon="bin" name={name} disabled={!can} onClick={() => session.tiles.removeChosenTiles(empty)} />;
  }
  return (
    <Dropdown align="end">
      <Dropdown.Toggle variant="bare" className="btn-icon bare-toggle" title={name} aria-label={name} disabled={!can}>
        <Icon name="bin" />
      </Dropdown.Toggle>
      <Dropdown.Menu className="tile-menu">
        <Dropdown.Header>
          {used} cells have {chosen.length > 1 ? "them" : "it"}. They get
        </Dropdown.Header>
        {world.tiles.map((tile, i) =>
          chosen.includes(tile.id) && tile.id !== empty ? null : (
            <Dropdown.Item
              key={tile.id}
              as="button"
              type="button"
              onClick={() => session.tiles.removeChosenTiles(tile.id)}
            >
              <TileSwatch source={world} tile={i} size={16} /> {tile.name}
            </Dropdown.Item>
          ),
        )}
      </Dropdown.Menu>
    </Dropdown>
  );
}
