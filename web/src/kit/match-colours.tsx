import type { Tile } from "@keen-pebble/core/world";
import { session } from "../page-session.ts";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import { useStore } from "zustand";
import { useProject } from "../use-session.ts";
import type { Matching } from "../session/bench/rooms.ts";

/** Asks once which tile each colour of a picture stands for. */
export function MatchColours() {
  const matching = useStore(session.rooms.store, (state) => state.matching);
  return matching && <Match key={matching.name} matching={matching} />;
}

function Match({ matching }: { readonly matching: Matching }) {
  const tiles = useProject((state) => state.project?.world.tiles ?? null);
  const [matched, setMatched] = useState<ReadonlyMap<string, string>>(new Map());
  const { width, height } = matching.pixels;
  return (
    <Modal
      show
      onHide={() => session.rooms.layMatched(null)}
      aria-labelledby="match-colours"
      centered
      animation={false}
    >
      <Modal.Header closeButton>
        <Modal.Title id="match-colours" as="h2">
          Which tiles are these colours?
        </Modal.Title>
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <p className="quiet">
          {matching.name}: {width} x {height} cells. Colours that are tiles already are left out.
        </p>
        <ul className="match-colours">
          {matching.colours.map(({ colour, cells }) => (
            <ColourRow
              key={colour}
              colour={colour}
              cells={cells}
              matched={matched}
              setMatched={setMatched}
              tiles={tiles}
            />
          ))}
        </ul>
      </Modal.Body>
      <Modal.Footer>
        <Button variant="plain" onClick={() => session.rooms.layMatched(null)}>
          Discard
        </Button>
        <Button variant="main" onClick={() => session.rooms.layMatched(matched)}>
          Paste it
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

/** One colour and the tile that it is. */
function ColourRow({
  colour,
  cells,
  matched,
  setMatched,
  tiles,
}: {
  readonly colour: string;
  readonly cells: number;
  readonly matched: ReadonlyMap<string, string>;
  readonly setMatched: React.Dispatch<React.SetStateAction<ReadonlyMap<string, string>>>;
  readonly tiles: readonly Tile[] | null;
}) {
  return (
    <li>
      <svg width="20" height="20" aria-hidden="true">
        <rect width="20" height="20" rx="3" fill={colour} />
      </svg>
      <span className="mono">{colour}</span>
      <span className="quiet">{cells} cells</span>
      <Form.Select
        aria-label={`Tile for ${colour}`}
        value={matched.get(colour) ?? ""}
        onChange={(event) =>
          setMatched(
            new Map([...matched, [colour, event.target.value]].filter(([, tile]) => tile !== "") as [string, string][]),
          )
        }
      >
        <option value="">A new tile</option>
        {tiles?.map((tile) => (
          <option key={tile.id} value={tile.id}>
            {tile.name}
          </option>
        ))}
      </Form.Select>
    </li>
  );
}
