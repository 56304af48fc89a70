import { completeCheck, invariantFault } from "@keen-pebble/core/check";
import type { World } from "@keen-pebble/core/world";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { BareButton } from "../look/bare-button.tsx";
import { session } from "../page-session.ts";
import { CheckField } from "../pebble-line/check-field.tsx";

/** What must hold in every log: each law can be changed or deleted, and one more written, its words completed. */
export function Laws({ world }: { readonly world: World }) {
  /** Which one is written: its number, or null for a new one; and none at all. */
  const [writing, setWriting] = useState<{ readonly at: number | null } | null>(null);
  return (
    <section className="kit-part laws" aria-label="Laws">
      <div className="row-line">
        <h3 className="grow">Laws</h3>
        <BareButton icon="plus" name="New law" onClick={() => setWriting({ at: null })} />
      </div>
      {world.laws.length === 0 && writing === null && (
        <p className="quiet small">None yet. A law holds in every frame of every log, such as: never outside.</p>
      )}
      {world.laws.map((law, i) =>
        writing?.at === i ? (
          <LawWriter key={i} world={world} text={law} at={i} onDone={() => setWriting(null)} />
        ) : (
          <div key={i} className="row-line">
            <Button variant="bare" className="text-button mono grow" onClick={() => setWriting({ at: i })}>
              {law}
            </Button>
            <BareButton icon="bin" name={`Delete the law ${law}`} onClick={() => session.worldSettings.removeLaw(i)} />
          </div>
        ),
      )}
      {writing?.at === null && <LawWriter world={world} text="" at={null} onDone={() => setWriting(null)} />}
    </section>
  );
}

function LawWriter({
  world,
  text: first,
  at,
  onDone,
}: {
  readonly world: World;
  readonly text: string;
  readonly at: number | null;
  readonly onDone: () => void;
}) {
  const [text, setText] = useState(first);
  const [caret, setCaret] = useState(text.length);
  const fault = text.trim() === "" ? null : invariantFault(world, text);
  const all = completeCheck(world, text.slice(0, caret));
  const completion =
    all.from === 0 ? { ...all, words: all.words.filter((word) => word === "always" || word === "never") } : all;
  const unfinished =
    fault !== null && caret === text.length && (fault.from === fault.to || completion.words.length > 0);
  const keep = (): boolean => {
    const kept = session.worldSettings.keepLaw(text, at);
    if (kept) onDone();
    return kept;
  };
  return (
    <>
      <div className="row-line">
        <CheckField
          label="Law"
          says="law-says"
          placeholder="never outside"
          text={text}
          caret={caret}
          completion={completion}
          fault={fault}
          unfinished={unfinished}
          onType={(value, to) => {
            setText(value);
            setCaret(to);
          }}
          onKeep={keep}
          onClose={onDone}
        />
        <Button variant="main" disabled={fault !== null || text.trim() === ""} onClick={keep}>
          {at === null ? "Add" : "Change"}
        </Button>
      </div>
      <p id="law-says" className="small quiet" role="status">
        {fault !== null && !unfinished ? fault.message : "Begins with always or never; Enter keeps it, Escape closes."}
      </p>
    </>
  );
}
