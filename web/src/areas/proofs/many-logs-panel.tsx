import type { World } from "@keen-pebble/core/world";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { BareButton } from "../../look/bare-button.tsx";
import { Icon } from "../../look/icon.tsx";
import { plural } from "../../look/plural.ts";
import { TextField } from "../../look/text-field.tsx";
import { session } from "../../page-session.ts";
import type { BoardRow } from "../../session/proofs/board.ts";
import { isFailing } from "../../session/proofs/board.ts";

const MOST_NAMED = 12;
const AS_THEY_ARE = "as they are";

/** What can be done to several logs at once. */
export function ManyLogsPanel({ rows, world }: { readonly rows: readonly BoardRow[]; readonly world: World }) {
  const failing = rows.filter(isFailing).length;
  return (
    <aside className="proof-detail" aria-label="Chosen logs">
      <div className="row-line detail-head">
        <h2 className="grow">{plural(rows.length, "log")} chosen</h2>
        <BareButton
          icon="close"
          name="Choose the shown log alone"
          title="Choose the shown log alone (Esc)"
          onClick={session.board.chooseNone}
        />
      </div>
      <div className="detail-scroll many-logs">
        <p className="quiet">
          {failing === 0 ? "All of them hold" : `${failing} of them ${failing === 1 ? "does" : "do"} not hold`}.
          Ctrl-click adds a log or takes it out, Shift-click chooses up to a log, Ctrl A all that are shown.
        </p>
        <ul className="mono quiet" aria-label="Their files">
          {rows.slice(0, MOST_NAMED).map(({ log }) => (
            <li key={log}>{log}.inputs</li>
          ))}
          {rows.length > MOST_NAMED && <li>and {rows.length - MOST_NAMED} more</li>}
        </ul>
        <AddTag />
        <TheirTags rows={rows} />
        <TheirRules world={world} />
      </div>
      <div className="row-line detail-foot">
        <Button
          variant="plain"
          onClick={session.manyLogs.deleteAll}
          title="Delete them (Delete); undo brings them back"
        >
          <Icon name="bin" /> Delete {plural(rows.length, "log")}
        </Button>
      </div>
    </aside>
  );
}

function AddTag() {
  const [tag, setTag] = useState("");
  return (
    <Form
      className="row-line"
      onSubmit={(event) => {
        event.preventDefault();
        if (session.manyLogs.addTag(tag.trim())) setTag("");
      }}
    >
      <div className="grow">
        <TextField label="Tag" value={tag} maxLength={40} onChange={(event) => setTag(event.target.value)} />
      </div>
      <Button type="submit" variant="plain" disabled={tag.trim() === ""}>
        Add to all
      </Button>
    </Form>
  );
}

/** The tags that any of them has, each to be taken from all. */
function TheirTags({ rows }: { readonly rows: readonly BoardRow[] }) {
  const tags = [...new Set(rows.flatMap((row) => row.tags))].sort();
  if (tags.length === 0) return null;
  return (
    <div className="tags-of-many" aria-label="Their tags" role="group">
      {tags.map((tag) => (
        <Button
          key={tag}
          variant="plain"
          size="sm"
          title={`Take the tag ${tag} from all of them`}
          aria-label={`Take the tag ${tag} from all of them`}
          onClick={() => session.manyLogs.removeTag(tag)}
        >
          {tag} <Icon name="close" />
        </Button>
      ))}
    </div>
  );
}

function TheirRules({ world }: { readonly world: World }) {
  return (
    <label className="log-fact">
      <span>Rules</span>
      <Form.Select
        value={AS_THEY_ARE}
        onChange={(event) => session.manyLogs.chooseRules(event.target.value === "" ? null : event.target.value)}
      >
        <option value={AS_THEY_ARE} disabled>
          As each has it
        </option>
        <option value="">Default rules</option>
        {world.rules.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Form.Select>
    </label>
  );
}
