import { session } from "../page-session.ts";
import type { Look, Tile, World } from "@keen-pebble/core/world";
import { useState } from "react";
import Form from "react-bootstrap/Form";
import { FileButton } from "../look/file-button.tsx";
import { Icon } from "../look/icon.tsx";
import { LookFields } from "./look-fields.tsx";
import { TileSwatch } from "./tile-swatch.tsx";

const MASKS = Array.from({ length: 16 }, (_, mask) => mask);

/** How the chosen tiles look, and how they join with their neighbours. */
export function LookEditor({ world, tiles }: { readonly world: World; readonly tiles: readonly Tile[] }) {
  const [tile] = tiles as readonly [Tile];
  return (
    <section className="kit-part" aria-label="Look">
      <div className="row-line">
        <h3 className="grow">Look</h3>
        <FileButton
          name="Image sheet"
          accept=".png"
          variant="bare"
          className="text-button"
          title="A PNG that is cut into tiles"
          onFiles={([file]) => void session.sheets.bringInSheet(file!)}
        >
          <Icon name="bringIn" /> sheet
        </FileButton>
      </div>
      <LookFields world={world} look={tile.look} name="the look" onLook={session.tiles.setLook} />
      <Joins world={world} tile={tile} />
    </section>
  );
}

/** Which neighbours a tile joins with, and its look for each of the sixteen ways in which they may stand. */
function Joins({ world, tile }: { readonly world: World; readonly tile: Tile }) {
  const [mask, setMask] = useState(0);
  const { joins } = tile;
  const number = world.tiles.indexOf(tile);
  const choose = (to: string): void => {
    session.tiles.changeChosen((each) => ({
      ...each,
      joins: to === "" ? null : { to, looks: each.joins?.looks ?? MASKS.map((m) => lookFor(each.look, m)) },
    }));
  };
  const setJoined = (look: Look, stroke?: string): void => {
    session.tiles.changeChosen(
      (each) =>
        each.joins === null
          ? each
          : { ...each, joins: { ...each.joins, looks: each.joins.looks.map((old, m) => (m === mask ? look : old)) } },
      stroke,
    );
  };
  return (
    <>
      <Form.Select
        aria-label="Joins its edges"
        value={joins?.to ?? ""}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="">Joins nothing</option>
        <option value="same">Joins its own kind</option>
        {world.flags.map((flag) => (
          <option key={flag} value={flag}>
            Joins what is {flag}
          </option>
        ))}
      </Form.Select>
      {joins && (
        <>
          <div className="joined" role="radiogroup" aria-label="Joined neighbours">
            {MASKS.map((m) => (
              <button
                key={m}
                type="button"
                role="radio"
                aria-checked={m === mask}
                aria-label={maskText(m)}
                title={maskText(m)}
                onClick={() => setMask(m)}
              >
                <TileSwatch source={world} tile={number} size={24} mask={m} />
              </button>
            ))}
          </div>
          <p className="quiet facts">{maskText(mask)}</p>
          <LookFields world={world} look={joins.looks[mask]!} name={maskText(mask)} onLook={setJoined} />
        </>
      )}
    </>
  );
}

/** What a newly joined tile looks like: its own look, or in a sheet the sixteen places of a block of four by four. */
function lookFor(look: Look, mask: number): Look {
  return "sheet" in look ? { ...look, at: [look.at[0] + (mask % 4), look.at[1] + Math.floor(mask / 4)] } : look;
}

function maskText(mask: number): string {
  const sides = ["north", "east", "south", "west"].filter((_, i) => mask & (1 << i));
  return sides.length === 0 ? "joined nowhere" : `joined ${sides.join(", ")}`;
}
