import { useCombobox } from "downshift";
import type { ReactNode } from "react";
import { useEffect, useRef, useState } from "react";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import type { Command, Commands } from "../session/commands/command.ts";
import { isTyping, keyOf, keyText } from "../session/commands/keys.ts";
import "./act-finder.css";

const OPEN = "keen-pebble-acts";

/** Shows the acts of the area. */
export function showActs(): void {
  window.dispatchEvent(new Event(OPEN));
}

const NOTHING_ELSE = (): boolean => false;

interface Props {
  /** Whether something else takes the keys now. */
  readonly isBusy?: () => boolean;
  readonly area: string;
  readonly commands: Commands;
  readonly children?: ReactNode;
}

/** Every act of the area with its keys, on `?` and Ctrl+K: found by name, done by Enter (interface.md, Keys). */
export function ActFinder({ area, commands, isBusy = NOTHING_ELSE, children }: Props) {
  const [shown, setShown] = useState(false);
  const asked = useRef<Command | null>(null);
  useEffect(() => {
    const open = (): void => setShown(true);
    const press = (event: KeyboardEvent): void => {
      if (isBusy() || document.querySelector(".modal.show")) return;
      const key = keyOf(event);
      if (key !== "Ctrl+K" && (key !== "?" || isTyping(event))) return;
      event.preventDefault();
      open();
    };
    window.addEventListener(OPEN, open);
    window.addEventListener("keydown", press);
    return () => {
      window.removeEventListener(OPEN, open);
      window.removeEventListener("keydown", press);
    };
  }, []);
  useEffect(() => {
    // Done once the dialog has given the keyboard back, for an act may want it.
    if (shown || asked.current === null) return;
    const { act } = asked.current;
    asked.current = null;
    act();
  }, [shown]);
  const choose = (command: Command): void => {
    asked.current = command;
    setShown(false);
  };
  return (
    <Modal
      show={shown}
      onHide={() => setShown(false)}
      aria-labelledby="acts-title"
      centered
      animation={false}
      dialogClassName="acts"
    >
      <Finder area={area} commands={commands} onChoose={choose}>
        {children}
      </Finder>
    </Modal>
  );
}

function Finder({
  area,
  commands,
  children,
  onChoose,
}: Omit<Props, "isBusy"> & { readonly onChoose: (command: Command) => void }) {
  const [sought, setSought] = useState("");
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const found = Object.values(commands).filter(({ name, keys }) =>
    words.every((word) => name.toLowerCase().includes(word) || keys.some((key) => key.toLowerCase() === word)),
  );
  const { getInputProps, getMenuProps, getItemProps } = useCombobox<Command>({
    items: found,
    itemToString: (command) => command?.name ?? "",
    isItemDisabled: (command) => !command.can(),
    inputValue: sought,
    selectedItem: null,
    isOpen: true,
    initialHighlightedIndex: 0,
    defaultHighlightedIndex: 0,
    onSelectedItemChange: ({ selectedItem }) => selectedItem && onChoose(selectedItem),
  });
  return (
    <>
      <Modal.Header closeButton>
        <Modal.Title id="acts-title" as="h2">
          Commands of the {area}
        </Modal.Title>
        <Form.Control
          {...getInputProps({ onChange: (event) => setSought(event.currentTarget.value) })}
          aria-label="Find a command"
          placeholder="Name or key; Enter does it"
          autoComplete="off"
          autoFocus
        />
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <ul {...getMenuProps({ className: "acts-list", "aria-label": `Commands of the ${area}` })}>
          {found.map((command, index) => (
            <li key={command.name} {...getItemProps({ item: command, index })}>
              {command.name}
              <span>
                {command.keys.map((key) => (
                  <kbd key={key}>{keyText(key)}</kbd>
                ))}
              </span>
            </li>
          ))}
        </ul>
        {found.length === 0 && <p className="quiet">No command of the {area} is called that.</p>}
        {children && words.length === 0 && <p className="quiet">{children}</p>}
      </Modal.Body>
    </>
  );
}
