import type { World } from "@keen-pebble/core/world";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { NumberField } from "../look/number-field.tsx";
import { plural } from "../look/plural.ts";
import { Segments } from "../look/segments.tsx";
import { TextField } from "../look/text-field.tsx";
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
export function WallPanel({ world }: { readonly world: World }) {
  const wall = useBench((state) => state.wall);
  useBench((state) => state.tile);
  const tile = session.walls.tile();
  const unused = session.walls.unused();
  const px = (label: string, value: number, onValue: (value: number) => void, max: number) => (
    <NumberField
      label={label}
      range={{ min: 1, max, whole: true }}
      unit="px"
      value={value}
      step={1}
      onValue={(next) => (onValue(next), true)}
      onStrokeEnd={() => undefined}
    />
  );
  return (
    <section className="kit-part wall-panel" aria-label="Wall">
      <h3>Wall of {tile?.name ?? "no tile"}</h3>
      <Segments
        label="How it is drawn"
        value={wall.way}
        choices={WALL_WAYS.map((value) => ({ value, name: NAMES[value] }))}
        onValue={session.walls.chooseWay}
      />
      <p className="quiet small">{HOW[wall.way]}</p>
      <div className="pair">
        {wall.way === "turned" && px("Thickness", wall.thickness, session.walls.setThickness, 512)}
        {px("Snap", wall.snap, session.walls.setSnap, world.tileSize)}
      </div>
      <Numbers />
      {wall.laid !== "" && (
        <p className="small" role="status">
          {wall.laid}
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
          label="px"
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
          Lay
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
