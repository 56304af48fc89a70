import type { ReactNode } from "react";
import { useEffect, useState } from "react";
import Modal from "react-bootstrap/Modal";
import type { Commands } from "../session/commands/command.ts";
import { isTyping, keyOf, keyText } from "../session/keys.ts";
import { isWalking } from "../session/walk.ts";

const OPEN = "keen-pebble-help";

/** Shows the keys of the area. */
export function showKeyHelp(): void {
  window.dispatchEvent(new Event(OPEN));
}

/** The keys of the area, on `?`. */
export function KeyHelp({ area, commands, children }: { readonly area: string; readonly commands: Commands; readonly children?: ReactNode }) {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const open = (): void => setShown(true);
    const press = (event: KeyboardEvent): void => {
      if (keyOf(event) === "?" && !isTyping(event) && !isWalking()) open();
    };
    window.addEventListener(OPEN, open);
    window.addEventListener("keydown", press);
    return () => {
      window.removeEventListener(OPEN, open);
      window.removeEventListener("keydown", press);
    };
  }, []);
  return (
    <Modal show={shown} onHide={() => setShown(false)} aria-labelledby="key-help" centered animation={false}>
      <Modal.Header closeButton>
        <Modal.Title id="key-help" as="h2">
          Keys of the {area}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <dl className="key-list">
          {Object.values(commands).map((command) => (
            <div key={command.name}>
              <dt>{command.name}</dt>
              <dd>
                {command.keys.map((key) => (
                  <kbd key={key}>{keyText(key)}</kbd>
                ))}
              </dd>
            </div>
          ))}
        </dl>
        {children && <p className="quiet">{children}</p>}
      </Modal.Body>
    </Modal>
  );
}
