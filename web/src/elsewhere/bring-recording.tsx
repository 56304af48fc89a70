import type { Button as PadButton, Game } from "@keen-pebble/core/world";
import { BUTTONS } from "@keen-pebble/core/world";
import { writeLog } from "@keen-pebble/core/check";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import Table from "react-bootstrap/Table";
import { plural } from "../look/plural.ts";
import { TextField } from "../look/text-field.tsx";
import { WholeField } from "../look/whole-field.tsx";
import { session } from "../page-session.ts";
import type { BroughtRecording, ColumnRole } from "../session/elsewhere/recording.ts";
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
    const id = recordings.make();
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
          Bring in a recording of your game
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Answers open={open} />
        <Columns open={open} />
        <LogPreview read={read} />
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
          {"refused" in read ? "Bring in" : `Bring in ${plural(read.frames, "frame")} as a log`}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

/** What it was taken for, what the game is called, and what its keys mean. */
function Answers({ open: { file, table, game, names } }: { readonly open: BroughtRecording }) {
  const { recordings } = session;
  return (
    <div className="recording-answers">
      <p className="map-source">
        <strong>{file}</strong>
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
          onValue={(value) => recordings.setOffset(value)}
        />
      )}
      <Keys game={game} names={names} />
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

/** The log as it will be. */
function LogPreview({ read }: { readonly read: BroughtRecording["read"] }) {
  if ("refused" in read) return <div className="recording-log" />;
  const lines = writeLog({ ...read.log, lines: read.log.lines.slice(0, LINES) })
    .split("---\n")[1]!
    .trim();
  return (
    <div className="recording-log">
      <h3>The log</h3>
      <pre className="mono" aria-label="The log">
        {lines}
        {read.log.lines.length > LINES && "\n..."}
      </pre>
    </div>
  );
}
