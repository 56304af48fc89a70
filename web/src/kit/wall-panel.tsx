import type { World } from "@keen-pebble/core/world";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { plural } from "../look/plural.ts";
import { Segments } from "../look/segments.tsx";
import { TextField } from "../look/text-field.tsx";
import { WholeField } from "../look/whole-field.tsx";
import { isCutTile } from "@keen-pebble/core/edit";
import { session } from "../page-session.ts";
import { WALL_WAYS } from "../session/bench/bench-store.ts";
import { useBench } from "../use-session.ts";

const NAMES = { straight: "Straight", turned: "Turned", corners: "Corners" } as const;

const HOW = {
  straight: "Drag from corner to corner.",
  turned: "Drag along the middle of the wall.",
  corners: "Click corner by corner; Enter or the first corner closes, Escape takes the last one back.",
} as const;

/** How a wall off the cells is drawn, what the last one became, and what is left over. */
export function WallPanel({ world, uses }: { readonly world: World; readonly uses: Uint32Array }) {
  // Not all of it: where the pointer is changes all the time.
  const way = useBench((state) => state.wall.way);
  const thickness = useBench((state) => state.wall.thickness);
  const snap = useBench((state) => state.wall.snap);
  const laid = useBench((state) => state.wall.laid);
  useBench((state) => state.tile);
  const tile = session.walls.tile();
  const unused = world.tiles.filter((each, i) => isCutTile(each) && uses[i] === 0).length;
  return (
    <section className="kit-part wall-panel" aria-label="Wall">
      <h3>Wall of {tile?.name ?? "no tile"}</h3>
      <Segments
        label="How it is drawn"
        value={way}
        choices={WALL_WAYS.map((value) => ({ value, name: NAMES[value] }))}
        onValue={session.walls.chooseWay}
      />
      <p className="quiet small">{HOW[way]}</p>
      <div className="pair">
        {way === "turned" && (
          <WholeField
            label="Thickness"
            range={[1, 512]}
            unit="px"
            value={thickness}
            onValue={session.walls.setThickness}
          />
        )}
        <WholeField label="Snap" range={[1, world.tileSize]} unit="px" value={snap} onValue={session.walls.setSnap} />
      </div>
      <Numbers />
      {laid !== "" && (
        <p className="small" role="status">
          {laid}
        </p>
      )}
      {unused > 0 && (
        <div className="row-line">
          <span className="grow small">{plural(unused, "cut tile")} in no cell</span>
          <Button variant="plain" onClick={session.walls.tidy}>
            Delete
          </Button>
        </div>
      )}
    </section>
  );
}

/** A wall given as numbers. */
function Numbers() {
  const [text, setText] = useState("");
  const [fault, setFault] = useState<string | null>(null);
  const lay = (): void => {
    const refused = session.walls.layNumbers(text);
    setFault(refused);
    if (refused === null) setText("");
  };
  return (
    <>
      <div className="row-line">
        <TextField
          label="In px"
          aria-label="Wall in px"
          title="left top width height, or x,y of each corner"
          placeholder="40 24 96 12"
          className="grow"
          face="mono"
          spellCheck={false}
          value={text}
          aria-invalid={fault !== null}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter") lay();
          }}
        />
        <Button variant="plain" disabled={text.trim() === ""} onClick={lay}>
          Add
        </Button>
      </div>
      {fault !== null && (
        <p className="small fault-text" role="alert">
          {fault}
        </p>
      )}
    </>
  );
}
