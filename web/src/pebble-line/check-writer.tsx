import { session } from "../page-session.ts";
import type { Check, Completion, Verdict, WordFault } from "@keen-pebble/core/check";
import type { World } from "@keen-pebble/core/world";
import { checkFault, checkText, completeCheck } from "@keen-pebble/core/check";
import { useCombobox } from "downshift";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Icon } from "../look/icon.tsx";
import { Pebble } from "../look/pebble.tsx";
import type { BenchState } from "../session/bench/bench-store.ts";
import { useBench, useProject } from "../use-session.ts";
import "./check-writer.css";
import { BareButton } from "../look/bare-button.tsx";

const MOST_OFFERED = 7;
const MOST_WORDS = 40;
const { ItemClick, InputBlur, InputKeyDownEnter } = useCombobox.stateChangeTypes;

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
          frame={frame}
          text={text}
          caret={caret}
          completion={completion}
          fault={fault}
          unfinished={unfinished}
          onType={(value, at) => {
            setText(value);
            setCaret(at);
          }}
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

interface FieldProps {
  readonly frame: number;
  readonly text: string;
  readonly caret: number;
  readonly completion: Completion;
  readonly fault: WordFault | null;
  readonly unfinished: boolean;
  readonly onType: (text: string, caret: number) => void;
}

/** The check's text, with the words that may come next below the caret. */
function CheckField(props: FieldProps) {
  const { frame, text, caret, completion, fault, unfinished, onType } = props;
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const { words, shown, inputProps, getMenuProps, getItemProps } = useCheckWords(field, props);
  return (
    <div className="writer-field">
      <Form.Control
        {...inputProps}
        className="mono"
        aria-label="Check"
        aria-invalid={fault !== null && !unfinished}
        aria-describedby="check-says"
        autoComplete="off"
        spellCheck={false}
        maxLength={200}
        placeholder={`at ${frame} cell 4 12, by 400 on lamp-head, always aligned`}
        onSelect={({ currentTarget }) => {
          const at = (currentTarget as HTMLInputElement).selectionStart ?? 0;
          if (at !== caret) onType(text, at);
        }}
      />
      {fault !== null && !unfinished && (
        <span className="writer-fault mono" aria-hidden="true">
          {text.slice(0, fault.from)}
          <u>{text.slice(fault.from, fault.to) || " "}</u>
        </span>
      )}
      <ul
        {...getMenuProps({ "aria-label": `Words for ${completion.name}` })}
        className="writer-words"
        style={{ "--at": `${completion.from}ch` } as React.CSSProperties}
        hidden={!shown}
      >
        {shown &&
          words.map((word, index) => (
            <li key={word} {...getItemProps({ item: word, index })}>
              {word}
            </li>
          ))}
      </ul>
    </div>
  );
}

/** The words that may come next, as a combobox: arrows and Enter take one, Tab the first, Enter without one keeps the check. */
function useCheckWords(
  field: React.RefObject<HTMLInputElement | null>,
  { text, caret, completion, fault, onType }: FieldProps,
) {
  const [open, setOpen] = useState(false);
  /** Where the caret belongs once a word was taken; put there at once, for the next letter may come at once too. */
  const goTo = useRef<number | null>(null);
  useLayoutEffect(() => {
    if (goTo.current !== null) field.current?.setSelectionRange(goTo.current, goTo.current);
    goTo.current = null;
  });
  const words = completion.words.slice(0, MOST_WORDS);
  const shown = open && words.length > 0;
  const take = (word: string): void => {
    const at = completion.from + word.length + 1;
    goTo.current = at;
    onType(`${text.slice(0, completion.from)}${word} ${text.slice(caret).trimStart()}`, at);
  };
  const { getInputProps, getMenuProps, getItemProps, highlightedIndex, setHighlightedIndex } = useCombobox<string>({
    items: words,
    inputValue: text,
    selectedItem: null,
    isOpen: shown,
    // A word that was taken is followed by the next; leaving the field takes none.
    stateReducer: (_, { type, changes }) => (type === InputBlur ? { ...changes, selectedItem: null } : changes),
    onSelectedItemChange: ({ selectedItem }) => selectedItem && take(selectedItem),
    onIsOpenChange: ({ isOpen, type }) => {
      if (type !== ItemClick && type !== InputKeyDownEnter) setOpen(isOpen);
    },
  });
  const press = (event: React.KeyboardEvent): void => {
    if (event.key === "Escape") {
      event.stopPropagation();
      if (!shown) session.checks.endCheck();
    } else if (event.key === "Tab" && shown && text.length > 0 && fault !== null) {
      event.preventDefault();
      take(words[Math.max(0, highlightedIndex)]!);
    } else if (event.key === "Enter" && (!shown || highlightedIndex < 0)) {
      event.preventDefault();
      if (session.checks.keepCheck(text)) field.current?.blur();
    }
  };
  const type = ({ currentTarget }: React.FormEvent<HTMLInputElement | HTMLTextAreaElement>): void => {
    onType(currentTarget.value, currentTarget.selectionStart ?? currentTarget.value.length);
    setHighlightedIndex(-1);
    setOpen(true);
  };
  const inputProps = getInputProps({ ref: field, onKeyDown: press, onChange: type });
  return { words, shown, inputProps, getMenuProps, getItemProps };
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
