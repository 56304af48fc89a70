import type { EntryKind, JournalEntry } from "@keen-pebble/server/api";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { useNavigate } from "react-router";
import { BareButton } from "../../look/bare-button.tsx";
import { Segments } from "../../look/segments.tsx";
import { session } from "../../page-session.ts";
import { entryPictureAddress } from "../../session/project/api-client.ts";
import { useProject } from "../../use-session.ts";

export const KIND_NAMES: Readonly<Record<EntryKind, string>> = { reason: "Reason", fault: "Fault", opinion: "Opinion" };
const MOST = 4000;

/** Writes a new entry by hand: of a kind, about the world as it is now. */
export function NewEntryForm() {
  const [kind, setKind] = useState<EntryKind>("reason");
  const [text, setText] = useState("");
  const keep = async (): Promise<void> => {
    if (text.trim() === "") return;
    if (await session.entries.write({ kind, text, log: null, frame: null, picture: null })) setText("");
  };
  return (
    <Form
      className="new-entry"
      aria-label="New entry"
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <Segments
        label="Kind"
        value={kind}
        choices={(Object.keys(KIND_NAMES) as EntryKind[]).map((value) => ({ value, name: KIND_NAMES[value] }))}
        onValue={setKind}
      />
      <Form.Control
        as="textarea"
        rows={1}
        aria-label="What you want to write down"
        placeholder="Why something is so, what is wrong, or what somebody said who tried it"
        maxLength={MOST}
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === "Enter" && event.ctrlKey && void keep()}
      />
      <Button type="submit" variant="main" disabled={text.trim() === ""} title="Keep it (Ctrl Enter)">
        Write
      </Button>
    </Form>
  );
}

/** An entry among the revisions: what it is, what was written, and the frame that it is about. */
export function Entry({ entry, when }: { readonly entry: JournalEntry; readonly when: string }) {
  const { frame, id, kind, picture, revision, sender, text, writtenAt } = entry;
  const world = useProject((state) => state.worldId);
  const [typed, setTyped] = useState<string | null>(null);
  const keep = async (): Promise<void> => {
    if (typed === null) return;
    const isSame = typed.trim() === text || typed.trim() === "";
    if (isSame || (await session.entries.change(entry, typed))) setTyped(null);
  };
  return (
    <li className={`revision entry ${kind}`} data-entry={id}>
      <span className="number mono quiet">{revision}</span>
      <span className="quiet when" title={writtenAt}>
        {when}
      </span>
      <span className={`entry-kind ${kind}`}>{KIND_NAMES[kind]}</span>
      <div className="said">
        {sender !== null && (
          <p className="quiet">
            From outside, by <bdi>{sender}</bdi>
          </p>
        )}
        {typed === null ? (
          <p>{text}</p>
        ) : (
          <Form.Control
            as="textarea"
            aria-label={`${KIND_NAMES[kind]} of revision ${revision}`}
            autoFocus
            rows={3}
            maxLength={MOST}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={() => void keep()}
            onKeyDown={(event) => {
              if (event.key === "Escape") setTyped(null);
              else if (event.key === "Enter" && event.ctrlKey) event.currentTarget.blur();
            }}
          />
        )}
        <ShownIn entry={entry} />
        {picture && world !== null && (
          <img loading="lazy" src={entryPictureAddress(world, id)} alt={`The field in frame ${frame ?? 0}`} />
        )}
      </div>
      <div className="row-line acts">
        <BareButton icon="pen" name="Change this entry" variant="plain" onClick={() => setTyped(text)} />
        <BareButton
          icon="bin"
          name="Delete this entry"
          variant="plain"
          onClick={() => void session.entries.remove(entry)}
        />
      </div>
    </li>
  );
}

/** The log and the frame that show what is meant, which is one click away. */
function ShownIn({ entry: { frame, log } }: { readonly entry: JournalEntry }) {
  const world = useProject((state) => state.worldId);
  const hasLog = useProject((state) => log !== null && state.project?.logs.has(log) === true);
  const navigate = useNavigate();
  if (log === null) return null;
  return (
    <p className="quiet">
      {hasLog ? (
        <button
          type="button"
          className="link mono"
          onClick={() => {
            session.shownLog.selectLog(log, frame ?? 0);
            void navigate(`/w/${world ?? ""}/bench`);
          }}
        >
          {log}.inputs, frame {frame ?? 0}
        </button>
      ) : (
        <span className="mono">
          {log}.inputs, frame {frame ?? 0}, which is no longer there
        </span>
      )}
    </p>
  );
}
