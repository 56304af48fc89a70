import { session } from "../page-session.ts";
import type { Refusal } from "@keen-pebble/core/world";
import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../look/icon.tsx";
import { useBench } from "../use-session.ts";
import { useDraft } from "../look/use-draft.ts";
import { faultsOf } from "../session/log/log-edits.ts";
import Form from "react-bootstrap/Form";

const NONE: readonly Refusal[] = [];

/** What comes of a text that is in order. */
function SaysOfRun() {
  const refused = useBench((state) => state.refused);
  return refused === null ? (
    <p className="quiet">Each keystroke runs it again.</p>
  ) : (
    <p className="attention">It cannot be run: {refused}.</p>
  );
}

/** A log as text: taken over with each keystroke that leaves it in order; what is not in order is marked at its line. */
export function LogText({ id, text }: { readonly id: string; readonly text: string }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [refusals, setRefusals] = useState(NONE);
  const stroke = useRef("");
  const gutter = useRef<HTMLPreElement>(null);
  const value = typed ?? text;
  const faulty = new Set(refusals.flatMap(({ line }) => (line === null ? [] : [line])));
  useEffect(() => () => session.project.endStroke(), []);
  const draft = useDraft(`log/${id}`, (kept) => {
    setTyped(kept);
    setRefusals(faultsOf(kept));
  });
  return (
    <div className="log-text">
      <div className="log-text-box">
        <pre ref={gutter} className="mono" aria-hidden="true">
          {value.split("\n").map((_, i) => (
            <span key={i} className={faulty.has(i + 1) ? "faulty" : ""}>{`${i + 1}\n`}</span>
          ))}
        </pre>
        <Form.Control
          as="textarea"
          className="mono"
          aria-label="Log text"
          aria-invalid={refusals.length > 0}
          aria-describedby="log-text-says"
          spellCheck={false}
          wrap="off"
          value={value}
          onScroll={(event) => {
            gutter.current!.scrollTop = event.currentTarget.scrollTop;
          }}
          onFocus={() => {
            stroke.current = crypto.randomUUID();
          }}
          onChange={(event) => {
            const next = event.target.value;
            setTyped(next);
            const found = session.logEdits.layTypedLog(id, next.endsWith("\n") ? next : `${next}\n`, stroke.current);
            setRefusals(found);
            // What does not read yet is kept over a closed tab; what does is the log itself.
            draft.keep(found.length > 0 ? next : null);
          }}
          onBlur={() => {
            session.project.endStroke();
            // What is not in order stays to be mended; what is, is the log's own text again.
            if (refusals.length === 0) setTyped(null);
          }}
        />
      </div>
      <TextSays
        refusals={refusals}
        onGiveUp={() => {
          setTyped(null);
          setRefusals(NONE);
          draft.keep(null);
        }}
      />
    </div>
  );
}

/** What comes of the text: its run, or what is wrong with it. */
function TextSays({ refusals, onGiveUp }: { readonly refusals: readonly Refusal[]; readonly onGiveUp: () => void }) {
  return (
    <div className="log-text-says" id="log-text-says" role="status">
      {refusals.length === 0 ? (
        <SaysOfRun />
      ) : (
        <>
          <p className="attention">
            The log stays as it was last until this is in order. The text is kept in this browser meanwhile:
          </p>
          <ul>
            {refusals.slice(0, 4).map(({ line, message }, i) => (
              <li key={i}>
                <span className="mono">{line ?? ""}</span> {message}
              </li>
            ))}
          </ul>
          <Button variant="plain" onClick={onGiveUp}>
            <Icon name="undo" /> Back to the log as it is
          </Button>
        </>
      )}
    </div>
  );
}
