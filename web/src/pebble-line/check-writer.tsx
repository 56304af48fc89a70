import { session } from "../page-session.ts";
import type { Check, Verdict } from "@keen-pebble/core/check";
import type { World } from "@keen-pebble/core/world";
import { checkFault, checkText, completeCheck } from "@keen-pebble/core/check";
import { useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../look/icon.tsx";
import { Pebble } from "../look/pebble.tsx";
import type { BenchState } from "../session/bench/bench-store.ts";
import { useBench, useProject } from "../use-session.ts";
import { CheckField } from "./check-field.tsx";
import "./check-writer.css";
import { BareButton } from "../look/bare-button.tsx";

const MOST_OFFERED = 7;

/** Writes a check: what is true at the shown frame as buttons, names completed while typing, what it says at once. */
export function CheckWriter() {
  const world = useProject((state) => state.project?.world ?? null);
  const begun = useBench((state) => state.writing);
  if (world === null || begun === null) return null;
  return <Writer world={world} begun={begun} />;
}

function Writer({ world, begun }: { readonly world: World; readonly begun: NonNullable<BenchState["writing"]> }) {
  const frame = useBench((state) => state.frame);
  const [text, setText] = useState(begun.text);
  const [caret, setCaret] = useState(text.length);
  const fault = text.trim() === "" ? null : checkFault(world, text);
  const completion = completeCheck(world, text.slice(0, caret));
  // A word that may still become one is not wrong yet, nor is an end at which something is missing.
  const unfinished =
    fault !== null &&
    caret === text.length &&
    (fault.from === fault.to || (fault.to === text.length && completion.words.length > 0));
  const newCheck = begun.replaces === null;
  return (
    <section className="check-writer" aria-label="Write a check">
      <div className="writer-line">
        <h2>{newCheck ? `A check, at frame ${frame}` : "Change this check"}</h2>
        <CheckField
          label="Check"
          says="check-says"
          placeholder={`at ${frame} cell 4 12, by 400 on lamp-head, always aligned`}
          text={text}
          caret={caret}
          completion={completion}
          fault={fault}
          unfinished={unfinished}
          onType={(value, at) => {
            setText(value);
            setCaret(at);
          }}
          onKeep={() => session.checks.keepCheck(text)}
          onClose={session.checks.endCheck}
        />
        <Button
          variant="main"
          disabled={fault !== null || text.trim() === ""}
          onClick={() => session.checks.keepCheck(text)}
        >
          {newCheck ? "Add it" : "Change it"}
        </Button>
        <BareButton icon="close" name="Close" title="Close (Esc)" onClick={session.checks.endCheck} />
      </div>
      <p className="writer-says" id="check-says" role="status">
        {text.trim() === "" ? (
          <span className="quiet">Type, or take what is true in this frame:</span>
        ) : fault !== null && unfinished && completion.words.length > 0 ? (
          // The list of words lies over this line and says the same.
          "\u00a0"
        ) : fault !== null ? (
          <span className={unfinished ? "quiet" : "attention"}>{fault.message}</span>
        ) : (
          <Said text={text} />
        )}
      </p>
      <Offers frame={frame} />
    </section>
  );
}

/** What the shown run says of a check that can be read. */
function Said({ text }: { readonly text: string }) {
  const run = useBench((state) => state.run);
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  useEffect(() => {
    let wanted = true;
    void session.checks.tryCheck(text).then((said) => wanted && setVerdict(said));
    return () => {
      wanted = false;
    };
  }, [text, run]);
  if (verdict === null) return <span className="quiet">running</span>;
  return (
    <>
      <Pebble kind={verdict.verdict} label={null} />
      {verdict.verdict === "pass"
        ? `passes, decided at frame ${verdict.frame}`
        : verdict.verdict === "fail"
          ? `fails at frame ${verdict.frame}; seen: ${verdict.seen ?? "nothing"}`
          : `not reached: ${verdict.seen ?? ""}`}
    </>
  );
}

/** What is true in the shown frame, each to be added with one press. */
function Offers({ frame }: { readonly frame: number }) {
  const run = useBench((state) => state.run);
  const [offered, setOffered] = useState<readonly Check[]>([]);
  useEffect(() => {
    let wanted = true;
    void session.checks.offerChecks().then((checks) => wanted && setOffered(checks));
    return () => {
      wanted = false;
    };
  }, [frame, run]);
  return (
    <div className="writer-offers" role="group" aria-label="True in this frame">
      {offered.slice(0, MOST_OFFERED).map((check) => (
        <Button
          key={checkText(check)}
          variant="plain"
          className="mono"
          onClick={() => session.checks.keepCheck(checkText(check))}
        >
          <Icon name="plus" /> {checkText(check)}
        </Button>
      ))}
    </div>
  );
}
