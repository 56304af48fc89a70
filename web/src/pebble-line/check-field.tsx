import type { Completion, WordFault } from "@keen-pebble/core/check";
import { useCombobox } from "downshift";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import Form from "react-bootstrap/Form";
import "./check-writer.css";

const MOST_WORDS = 40;
const { ItemClick, InputBlur, InputKeyDownEnter } = useCombobox.stateChangeTypes;

interface FieldProps {
  readonly label: string;
  /** Id of what says how it stands with the text. */
  readonly says: string;
  readonly placeholder: string;
  readonly text: string;
  readonly caret: number;
  readonly completion: Completion;
  readonly fault: WordFault | null;
  readonly unfinished: boolean;
  readonly onType: (text: string, caret: number) => void;
  /** Enter: keeps the text; false where it is not whole. */
  readonly onKeep: () => boolean;
  /** Escape. */
  readonly onClose: () => void;
}

/** The check's text, with the words that may come next below the caret. */
export function CheckField(props: FieldProps) {
  const { label, says, placeholder, text, caret, completion, fault, unfinished, onType } = props;
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const { words, shown, inputProps, getMenuProps, getItemProps } = useCheckWords(field, props);
  return (
    <div className="writer-field">
      <Form.Control
        {...inputProps}
        className="mono"
        aria-label={label}
        aria-invalid={fault !== null && !unfinished}
        aria-describedby={says}
        autoComplete="off"
        spellCheck={false}
        maxLength={200}
        placeholder={placeholder}
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
  { text, caret, completion, fault, onType, onKeep, onClose }: FieldProps,
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
      if (!shown) onClose();
    } else if (event.key === "Tab" && shown && text.length > 0 && fault !== null) {
      event.preventDefault();
      take(words[Math.max(0, highlightedIndex)]!);
    } else if (event.key === "Enter" && (!shown || highlightedIndex < 0)) {
      event.preventDefault();
      if (onKeep()) field.current?.blur();
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
