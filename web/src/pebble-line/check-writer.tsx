import { session } from "../page-session.ts";
import type { Check, Verdict } from "@keen-pebble/core/check";
import { checkFault, checkText, completeCheck } from "@keen-pebble/core/check";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../look/icon.tsx";
import { Pebble } from "../look/pebble.tsx";
import { useBench, useProject } from "../use-session.ts";
import "./check-writer.css";

const MOST_OFFERED = 7;

/** Writes a check: what is true at the shown frame as buttons, names completed while typing, what it says at once. */
export function CheckWriter() {
  const world = useProject((state) => state.project?.world ?? null);
  const begun = useBench((state) => state.writing);
  const frame = useBench((state) => state.frame);
  const run = useBench((state) => state.run);
  const [text, setText] = useState(begun?.text ?? "");
  const [caret, setCaret] = useState(text.length);
  const [chosen, setChosen] = useState(-1);
  const [open, setOpen] = useState(false);
  const [offered, setOffered] = useState<readonly Check[]>([]);
  const [verdict, setVerdict] = useState<Verdict | null>(null);
  const field = useRef<HTMLInputElement>(null);
  /** Where the caret belongs once a word was taken; put there at once, for the next letter may come at once too. */
  const goTo = useRef<number | null>(null);
  useLayoutEffect(() => {
    if (goTo.current !== null) field.current?.setSelectionRange(goTo.current, goTo.current);
    goTo.current = null;
  });
  useEffect(() => field.current?.focus(), []);
  useEffect(() => {
    let wanted = true;
    void session.checks.offerChecks().then((checks) => wanted && setOffered(checks));
    return () => {
      wanted = false;
    };
  }, [frame, run]);
  useEffect(() => {
    let wanted = true;
    void session.checks.tryCheck(text).then((said) => wanted && setVerdict(said));
    return () => {
      wanted = false;
    };
  }, [text, run]);
  if (world === null || begun === null) return null;
  const fault = text.trim() === "" ? null : checkFault(world, text);
  const completion = completeCheck(world, text.slice(0, caret));
  // A word that may still become one is not wrong yet, nor is an end at which something is missing.
  const unfinished =
    fault !== null &&
    caret === text.length &&
    (fault.from === fault.to || (fault.to === text.length && completion.words.length > 0));
  const words = open ? completion.words : [];
  const take = (word: string): void => {
    const next = `${text.slice(0, completion.from)}${word} ${text.slice(caret).trimStart()}`;
    setText(next);
    setCaret(completion.from + word.length + 1);
    setChosen(-1);
    goTo.current = completion.from + word.length + 1;
  };
  const typed = (value: string, at: number): void => {
    setText(value);
    setCaret(at);
    setChosen(-1);
    setOpen(true);
  };
  const keep = (value: string): void => {
    if (session.checks.keepCheck(value)) field.current?.blur();
  };
  const press = (event: React.KeyboardEvent): void => {
    if (event.key === "Escape") {
      event.stopPropagation();
      if (open && words.length > 0) setOpen(false);
      else session.checks.endCheck();
    } else if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      setOpen(true);
      const count = completion.words.length;
      if (count > 0)
        setChosen(
          (chosen + (event.key === "ArrowDown" ? 1 : -1) + count + (chosen < 0 && event.key === "ArrowUp" ? 1 : 0)) %
            count,
        );
    } else if (
      (event.key === "Tab" && words.length > 0 && text.length > 0 && fault !== null) ||
      (event.key === "Enter" && chosen >= 0)
    ) {
      event.preventDefault();
      take(words[Math.max(0, chosen)]!);
    } else if (event.key === "Enter") {
      event.preventDefault();
      keep(text);
    }
  };
  return (
    <section className="check-writer" aria-label="Write a check">
      <div className="writer-line">
        <h2>{begun.replaces === null ? `A check, at frame ${frame}` : "Change this check"}</h2>
        <div className="writer-field">
          <input
            ref={field}
            className="form-control mono"
            role="combobox"
            aria-label="Check"
            aria-expanded={words.length > 0}
            aria-controls="check-words"
            aria-activedescendant={chosen >= 0 ? `check-word-${chosen}` : undefined}
            aria-invalid={fault !== null && !unfinished}
            aria-describedby="check-says"
            autoComplete="off"
            spellCheck={false}
            maxLength={200}
            placeholder={`at ${frame} cell 4 12, by 400 on lamp-head, always aligned`}
            value={text}
            onChange={(event) => typed(event.target.value, event.target.selectionStart ?? event.target.value.length)}
            onSelect={(event) => setCaret(event.currentTarget.selectionStart ?? 0)}
            onBlur={() => setOpen(false)}
            onKeyDown={press}
          />
          {fault !== null && !unfinished && (
            <span className="writer-fault mono" aria-hidden="true">
              {text.slice(0, fault.from)}
              <u>{text.slice(fault.from, fault.to) || " "}</u>
            </span>
          )}
          {words.length > 0 && (
            <ul
              className="writer-words"
              style={{ "--at": `${completion.from}ch` } as React.CSSProperties}
              id="check-words"
              role="listbox"
              aria-label={`Words for ${completion.name}`}
            >
              {words.slice(0, 40).map((word, i) => (
                <li
                  key={word}
                  id={`check-word-${i}`}
                  role="option"
                  aria-selected={i === chosen}
                  onMouseDown={(event) => event.preventDefault()}
                  onClick={() => take(word)}
                >
                  {word}
                </li>
              ))}
            </ul>
          )}
        </div>
        <Button variant="main" disabled={fault !== null || text.trim() === ""} onClick={() => keep(text)}>
          {begun.replaces === null ? "Add it" : "Change it"}
        </Button>
        <Button
          variant="bare"
          className="btn-icon"
          aria-label="Close"
          title="Close (Esc)"
          onClick={session.checks.endCheck}
        >
          <Icon name="close" />
        </Button>
      </div>
      <p className="writer-says" id="check-says" role="status">
        {text.trim() === "" ? (
          <span className="quiet">Type, or take what is true in this frame:</span>
        ) : fault !== null && unfinished && words.length > 0 ? (
          // The list of words lies over this line and says the same.
          "\u00a0"
        ) : fault !== null ? (
          <span className={unfinished ? "quiet" : "attention"}>{fault.message}</span>
        ) : verdict === null ? (
          <span className="quiet">running</span>
        ) : (
          <>
            <Pebble kind={verdict.verdict} label={null} />
            {verdict.verdict === "pass"
              ? `passes, decided at frame ${verdict.frame}`
              : verdict.verdict === "fail"
                ? `fails at frame ${verdict.frame}; seen: ${verdict.seen ?? "nothing"}`
                : `not reached: ${verdict.seen ?? ""}`}
          </>
        )}
      </p>
      <div className="writer-offers" role="group" aria-label="True in this frame">
        {offered.slice(0, MOST_OFFERED).map((check) => (
          <button
            key={checkText(check)}
            type="button"
            className="btn btn-plain mono"
            onClick={() => keep(checkText(check))}
          >
            <Icon name="plus" /> {checkText(check)}
          </button>
        ))}
      </div>
    </section>
  );
}
