import { session } from "../../page-session.ts";
import type { Room, World } from "@keen-pebble/core/world";
import { roomFindings } from "@keen-pebble/core/analyse";
import { seamsOf } from "@keen-pebble/core/edit";
import { SIDES, roomById } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { useStore } from "zustand";
import { MemoryTable } from "../../kit/bag-panel.tsx";
import { Icon } from "../../look/icon.tsx";
import { ActFinder } from "../../look/act-finder.tsx";
import { LogChoice } from "../../logs/log-choice.tsx";
import { along } from "../../session/floorplan/plan-cursor.ts";
import { useBench, useProject } from "../../use-session.ts";
import { SideEdge, sideColumns, useSide } from "../../look/side-panel.tsx";
import { useCommandKeys } from "../../look/use-commands.ts";
import { PlanCanvas } from "./plan-canvas.tsx";
import { DieAndReturn } from "./die-and-return.tsx";
import { ReEntryTest } from "./re-entry-test.tsx";
import "./floorplan.css";
import { Segments } from "../../look/segments.tsx";

/** The Floorplan: how rooms hang together, and what each remembers. */
export function FloorplanPage() {
  const world = useProject((state) => state.project?.world ?? null);
  const side = useSide("memory");
  useCommandKeys(session.commands.floorplan, session.walks.walkTakesKeys);
  if (world === null) return <main className="area" />;
  return (
    <>
      <main className="area floorplan" style={sideColumns(null, side)}>
        <h1 className="visually-hidden">Floorplan</h1>
        <Tools world={world} />
        <PlanCanvas />
        {!side.folded && <Memory world={world} />}
        <SideEdge name="memory" />
      </main>
      <Status world={world} />
      <ActFinder area="Floorplan" commands={session.commands.floorplan} isBusy={session.walks.walkTakesKeys}>
        Drag a room to move it, from side to side to link; Shift links the opening only, Alt one way. A double click
        goes to the Bench.
      </ActFinder>
    </>
  );
}

/** Links a side of the chosen room, as a drag from side to side does. */
function LinkSide({ world, room }: { readonly world: World; readonly room: Room | undefined }) {
  return (
    <Form.Select
      className="wall-up"
      aria-label="Link a side of the chosen room"
      value=""
      disabled={room === undefined}
      onChange={(event) => {
        const [side, to] = event.target.value.split(" ") as [(typeof SIDES)[number], string];
        session.floorplan.linkChosen(side, to);
      }}
    >
      <option value="">Link</option>
      {SIDES.map((side) => (
        <optgroup key={side} label={`${side} side to`}>
          {world.rooms.map(({ id, name }) => (
            <option key={id} value={`${side} ${id}`}>
              {name}
            </option>
          ))}
        </optgroup>
      ))}
    </Form.Select>
  );
}

/** Walls up a side of the chosen room. */
function WallUp({ room }: { readonly room: Room | undefined }) {
  return (
    <Form.Select
      className="wall-up"
      aria-label="Wall up a side of the chosen room"
      value=""
      disabled={room === undefined}
      onChange={(event) => session.floorplan.wallChosen(event.target.value as (typeof SIDES)[number])}
    >
      <option value="">Wall up</option>
      {SIDES.map((side) => (
        <option key={side} value={side}>
          {side} side
        </option>
      ))}
    </Form.Select>
  );
}

function Tools({ world }: { readonly world: World }) {
  const chosen = useStore(session.floorplan.store, (state) => state.room);
  const room = chosen === null ? undefined : roomById(world, chosen);
  const frame = useBench((state) => state.frame);
  const frames = useBench((state) => state.run?.frames ?? null);
  return (
    <div className="plan-tools">
      <Button variant="plain" onClick={session.floorplan.addRoomToPlan}>
        <Icon name="plus" /> Room
      </Button>
      <Button
        variant="plain"
        disabled={room === undefined}
        title="The chosen room's west and east sides lead into each other"
        onClick={() => session.floorplan.wrapChosen("x")}
      >
        Wrap across
      </Button>
      <Button
        variant="plain"
        disabled={room === undefined}
        title="The chosen room's north and south sides lead into each other"
        onClick={() => session.floorplan.wrapChosen("y")}
      >
        Wrap down
      </Button>
      <LinkSide world={world} room={room} />
      <WallUp room={room} />
      <span className="bar" />
      {frames !== null && (
        <Segments
          label="State shown in the rooms"
          value={frame === 0 ? "start" : frame === frames ? "end" : "between"}
          choices={[
            { value: "start", name: "Start" },
            { value: "between", name: `Frame ${frame}`, disabled: true },
            { value: "end", name: "End" },
          ]}
          onValue={(state) => session.playing.showFrame(state === "start" ? 0 : frames)}
        />
      )}
      <LogChoice className="plan-log" />
    </div>
  );
}

/** Beside the plan: what does not meet, and what every room remembers in the shown frame. */
function Memory({ world }: { readonly world: World }) {
  const remembered = useBench((state) => state.explanation?.remembered ?? null);
  const afterRespawn = useBench((state) => state.explanation?.afterRespawn ?? null);
  const findings = roomFindings(world);
  return (
    <aside className="plan-memory" aria-label="Memory">
      <ReEntryTest world={world} />
      {findings.length > 0 && (
        <ul className="plan-findings" aria-label="What cannot work">
          {findings.map(({ place, message }) => (
            <li key={`${place} ${message}`}>
              <Icon name="attention" /> {message}
            </li>
          ))}
        </ul>
      )}
      {remembered !== null && afterRespawn !== null && (
        <DieAndReturn world={world} remembered={remembered} afterRespawn={afterRespawn} />
      )}
      {remembered === null || afterRespawn === null ? (
        <p className="quiet">
          Choose a log: what each room remembers is shown here, frame by frame. Without one, walk and keep a log on the
          Bench.
        </p>
      ) : (
        <MemoryTable world={world} remembered={remembered} afterRespawn={afterRespawn} wide />
      )}
    </aside>
  );
}

function Status({ world }: { readonly world: World }) {
  const chosen = useStore(session.floorplan.store, (state) => state.room);
  const room = chosen === null ? undefined : roomById(world, chosen);
  const seams = seamsOf(world);
  const links = seams.filter(({ rule }) => rule.kind === "link").length;
  const portals = world.rooms.flatMap(({ fixtures }) => fixtures.filter(({ kind }) => kind === "portal")).length;
  return (
    <footer className="status">
      <span>
        {plural(world.rooms.length, "room")}, {plural(links, "linked side")}, {plural(portals, "portal")}
      </span>
      <CursorSays world={world} />
      {room && <span className="bar" />}
      {room && (
        <span>
          {room.name} <b className="mono">{`${room.width} x ${room.height}`}</b>{" "}
          {seams
            .filter((seam) => seam.room === room.id)
            .map(
              ({ side, rule, oneWay, unmet }) =>
                `${side} ${rule.kind === "wrap" ? "wraps" : `to ${roomById(world, rule.room)?.name ?? rule.room}${oneWay ? ", one way" : ""}`}${unmet.length > 0 && rule.kind === "link" ? `, ${unmet.length} cells do not meet` : ""}`,
            )
            .join("; ")}
        </span>
      )}
      <span className="grow" />
      <span>Drag from side to side to link; Shift: the opening, Alt: one way</span>
    </footer>
  );
}

/** Where the cell cursor is, and what is held there. */
function CursorSays({ world }: { readonly world: World }) {
  const { at, held } = useStore(session.planCursor.store);
  const room = at === null ? undefined : roomById(world, at.room);
  return (
    <span role="status">
      {at !== null && room !== undefined && (
        <>
          {held === "start" ? "Start, " : held !== null ? `Link from the ${held.side!} side, ` : ""}
          {room.name}{" "}
          {at.side === null ? (
            <b className="mono">{`${at.cx},${at.cy}`}</b>
          ) : (
            <>
              {at.side} side, {at.side === "north" || at.side === "south" ? "column" : "row"}{" "}
              <b className="mono">{along(at)}</b>
            </>
          )}
        </>
      )}
    </span>
  );
}

const plural = (n: number, what: string): string => `${n} ${what}${n === 1 ? "" : "s"}`;
