import type { Refusal } from "@keen-pebble/core";
import { useEffect, useRef, useState } from "react";
import { endStroke } from "../session/project-store.ts";
import { layTypedLog } from "../session/log-edits.ts";

const NONE: readonly Refusal[] = [];

/** A log as text: taken over with each keystroke that leaves it in order; what is not in order is marked at its line. */
export function LogText({ id, text }: { readonly id: string; readonly text: string }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [refusals, setRefusals] = useState(NONE);
  const stroke = useRef("");
  const gutter = useRef<HTMLPreElement>(null);
  const value = typed ?? text;
  const faulty = new Set(refusals.flatMap(({ line }) => (line === null ? [] : [line])));
  useEffect(() => () => endStroke(), []);
  return (
    <div className="log-text">
      <div className="log-text-box">
        <pre ref={gutter} className="mono" aria-hidden="true">
          {value.split("\n").map((_, i) => (
            <span key={i} className={faulty.has(i + 1) ? "faulty" : ""}>{`${i + 1}\n`}</span>
          ))}
        </pre>
        <textarea
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
            setTyped(event.target.value);
            setRefusals(layTypedLog(id, event.target.value.endsWith("\n") ? event.target.value : `${event.target.value}\n`, stroke.current));
          }}
          onBlur={() => {
            endStroke();
            // What is not in order stays to be mended; what is, is the log's own text again.
            if (refusals.length === 0) setTyped(null);
          }}
        />
      </div>
      <div className="log-text-says" id="log-text-says" role="status">
        {refusals.length === 0 ? (
          <p className="quiet">Each keystroke runs it again.</p>
        ) : (
          <>
            <p className="attention">The log stays as it was last until this is in order:</p>
            <ul>
              {refusals.slice(0, 4).map(({ line, message }, i) => (
                <li key={i}>
                  <span className="mono">{line ?? ""}</span> {message}
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
    </div>
  );
}
