import type { Button as PadButton, Game } from "@keen-pebble/core/world";
import { BUTTONS } from "@keen-pebble/core/world";
import type { InputLog } from "@keen-pebble/core/check";
import { writeLog } from "@keen-pebble/core/check";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import Table from "react-bootstrap/Table";
import { plural } from "../look/plural.ts";
import { PlaceAnswers } from "../look/place-answers.tsx";
import { SelectField } from "../look/select-field.tsx";
import { TextField } from "../look/text-field.tsx";
import { WholeField } from "../look/whole-field.tsx";
import { session } from "../page-session.ts";
import type { BroughtRecording, ColumnRole, ReadRecording } from "../session/elsewhere/recording.ts";
import { useProject } from "../use-session.ts";
import { PathPreview } from "./path-preview.tsx";
import "./bring-recording.css";

const BUTTON_NAMES: Readonly<Record<PadButton, string>> = {
  L: "left",
  R: "right",
  U: "up",
  D: "down",
  A: "use (A)",
  B: "spare (B)",
};

const ROLES: readonly (readonly [ColumnRole, string])[] = [
  ["", "not read"],
  ["frame", "frame"],
  ["x", "x"],
  ["y", "y"],
  ["room", "room"],
  ["keys", "all keys"],
  ...BUTTONS.map((button) => [button, `key: ${BUTTON_NAMES[button]}`] as const),
];

/** Rows of the recording, and lines of the log, that are shown. */
const ROWS = 8;
const LINES = 12;

/** Brings in what a game wrote down: what its columns are and its keys mean, and the log that comes of it. */
export default function BringRecording({ open }: { readonly open: BroughtRecording }) {
  const { recordings } = session;
  const { game, read } = open;
  const make = (): void => {
    const id = recordings.make(session.benchStore.getState().log);
    if (id !== null) session.board.chooseRow(id);
  };
  return (
    <Modal
      show
      onHide={recordings.close}
      aria-labelledby="bring-recording-title"
      centered
      animation={false}
      dialogClassName="bring-recording"
    >
      <Modal.Header closeButton>
        <Modal.Title id="bring-recording-title" as="h2">
          Read a recording of your game
        </Modal.Title>
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <Answers open={open} />
        <Columns open={open} />
        <Preview read={read} />
      </Modal.Body>
      <Modal.Footer>
        <p className="grow" role="status">
          {"refused" in read ? (
            <span className="attention">{read.refused}</span>
          ) : (
            <span className="quiet">How it is read is kept in the world: the next one comes in at once.</span>
          )}
        </p>
        <Button variant="plain" onClick={recordings.close}>
          Cancel
        </Button>
        <Button variant="main" disabled={"refused" in read || game.name.trim() === ""} onClick={make}>
          {"refused" in read ? "Bring in" : madeText(read)}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

/** What the button makes. */
function madeText({ log, trace, frames }: ReadRecording): string {
  if (log === null) return `Compare ${plural(frames, "frame")} with the log`;
  return `Bring in ${plural(frames, "frame")} as a log${trace === null ? "" : ", and compare"}`;
}

/** What it was taken for, what the game is called, and what its keys mean. */
function Answers({ open: { file, table, game, names, rooms } }: { readonly open: BroughtRecording }) {
  const { recordings } = session;
  return (
    <div className="recording-answers">
      <p className="map-source">
        <strong>{file.name}</strong>
        <span className="quiet">
          {plural(table.rows.length, "row")}, {plural(table.columns.length, "column")}
        </span>
      </p>
      <TextField
        label="Game"
        maxLength={80}
        value={game.name}
        onChange={(event) => recordings.call(event.target.value)}
      />
      {game.columns.frame !== null && (
        <WholeField
          label="Frame offset"
          range={[-100_000, 100_000]}
          value={game.frameOffset}
          onValue={(frameOffset) => recordings.answer({ frameOffset })}
        />
      )}
      {game.columns.x !== null && game.columns.y !== null && <Places game={game} rooms={rooms} />}
      <Keys game={game} names={names} />
    </div>
  );
}

/** What the places mean. */
function Places({ game, rooms }: { readonly game: Game; readonly rooms: readonly string[] }) {
  const { recordings } = session;
  const world = useProject((state) => state.project?.world ?? null);
  return (
    <div className="recording-places">
      <h3>Places</h3>
      <PlaceAnswers game={game} onAnswer={recordings.answer} />
      {(["x", "y"] as const).map((axis, i) => (
        <WholeField
          key={axis}
          label={`Add to ${axis}`}
          range={[-100_000, 100_000]}
          value={game.origin[i]!}
          onValue={(value) =>
            recordings.answer({ origin: i === 0 ? [value, game.origin[1]] : [game.origin[0], value] })
          }
        />
      ))}
      {rooms.slice(0, 24).map((called) => (
        <SelectField
          key={called}
          label={`Room ${called}`}
          value={game.rooms[called] ?? (world?.rooms.some(({ id }) => id === called) ? called : "")}
          choices={[["", "none"], ...(world?.rooms ?? []).map(({ id, name }) => [id, name] as const)]}
          onValue={(room) => recordings.setRoom(called, room === "" ? null : room)}
        />
      ))}
    </div>
  );
}

/** Which button each name of a key is. */
function Keys({ game, names }: { readonly game: Game; readonly names: readonly string[] }) {
  if (names.length === 0) return null;
  return (
    <div className="recording-keys">
      <h3>Keys</h3>
      {names.slice(0, 24).map((name) => (
        <div key={name} className="labelled">
          <Form.Label htmlFor={`key-${name}`} className="mono">
            {name}
          </Form.Label>
          <Form.Select
            id={`key-${name}`}
            value={game.keys[name] ?? ""}
            onChange={({ target }) =>
              session.recordings.setButton(name, target.value === "" ? null : (target.value as PadButton))
            }
          >
            <option value="">no button</option>
            {BUTTONS.map((button) => (
              <option key={button} value={button}>
                {BUTTON_NAMES[button]}
              </option>
            ))}
          </Form.Select>
        </div>
      ))}
    </div>
  );
}

/** The recording's first rows, over each column what it says. */
function Columns({ open: { table, game } }: { readonly open: BroughtRecording }) {
  return (
    <div className="recording-table">
      <Table size="sm">
        <thead>
          <tr>
            {table.columns.map((column) => (
              <th key={column} scope="col">
                <span className="mono">{column}</span>
                <Form.Select
                  aria-label={`What ${column} says`}
                  value={session.recordings.roleOf(game, column)}
                  onChange={({ target }) => session.recordings.setRole(column, target.value as ColumnRole)}
                >
                  {ROLES.map(([role, name]) => (
                    <option key={role} value={role}>
                      {name}
                    </option>
                  ))}
                </Form.Select>
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="mono">
          {table.rows.slice(0, ROWS).map((row, i) => (
            <tr key={i}>
              {row.map((field, k) => (
                <td key={k}>{field}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      {table.rows.length > ROWS && <p className="quiet small">and {table.rows.length - ROWS} more rows</p>}
    </div>
  );
}

/** The walk over its room, and the log, as they will be. */
function Preview({ read }: { readonly read: BroughtRecording["read"] }) {
  if ("refused" in read) return <div className="recording-log" />;
  return (
    <div className="recording-log" tabIndex={0} role="region" aria-label="What comes of it">
      {read.trace !== null && <PathPreview trace={read.trace} />}
      {read.log !== null && <LogLines log={read.log} />}
    </div>
  );
}

function LogLines({ log }: { readonly log: InputLog }) {
  const lines = writeLog({ ...log, lines: log.lines.slice(0, LINES) })
    .split("---\n")[1]!
    .trim();
  return (
    <>
      <h3>The log</h3>
      <pre className="mono" aria-label="The log">
        {lines}
        {log.lines.length > LINES && "\n..."}
      </pre>
    </>
  );
}
