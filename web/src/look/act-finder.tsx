import type { ReactNode } from "react";
import { useEffect, useRef, useState } from "react";
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
  const [sought, setSought] = useState("");
  const [marked, setMarked] = useState(0);
  const asked = useRef<Command | null>(null);
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    const open = (): void => {
      setSought("");
      setMarked(0);
      setShown(true);
    };
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
  useEffect(
    () => list.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" }),
    [marked],
  );
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const found = Object.values(commands).filter(({ name, keys }) =>
    words.every((word) => name.toLowerCase().includes(word) || keys.some((key) => key.toLowerCase() === word)),
  );
  const act = (command: Command | undefined): void => {
    if (command === undefined || !command.can()) return;
    asked.current = command;
    setShown(false);
  };
  const press = (event: React.KeyboardEvent): void => {
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    if (by !== 0 && found.length > 0) setMarked((marked + by + found.length) % found.length);
    else if (event.key === "Enter") act(found[marked]);
    else return;
    event.preventDefault();
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
      <Modal.Header closeButton>
        <Modal.Title id="acts-title" as="h2">
          Acts of the {area}
        </Modal.Title>
        <input
          className="form-control"
          role="combobox"
          aria-label="Find an act"
          aria-expanded="true"
          aria-controls="acts-list"
          aria-activedescendant={found.length > 0 ? `act-${marked}` : undefined}
          placeholder="Name or key; Enter does it"
          autoComplete="off"
          autoFocus
          value={sought}
          onChange={(event) => {
            setSought(event.target.value);
            setMarked(0);
          }}
          onKeyDown={press}
        />
      </Modal.Header>
      <Modal.Body>
        <ul className="acts-list" id="acts-list" role="listbox" aria-label={`Acts of the ${area}`} ref={list}>
          {found.map((command, i) => (
            <li
              key={command.name}
              id={`act-${i}`}
              role="option"
              aria-selected={i === marked}
              aria-disabled={!command.can()}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => act(command)}
            >
              {command.name}
              <span>
                {command.keys.map((key) => (
                  <kbd key={key}>{keyText(key)}</kbd>
                ))}
              </span>
            </li>
          ))}
        </ul>
        {found.length === 0 && <p className="quiet">No act of the {area} is called that.</p>}
        {children && words.length === 0 && <p className="quiet">{children}</p>}
      </Modal.Body>
    </Modal>
  );
}
