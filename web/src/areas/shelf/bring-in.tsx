import { useRef } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../../look/icon.tsx";
import { useShelf } from "../../session/hooks.ts";
import { ENDINGS, FILE_KINDS } from "../../session/shelf-files.ts";
import { bringIn } from "../../session/shelf-store.ts";
import { MakeWorld } from "./make-world.tsx";

/** How worlds come to be here: made, dropped anywhere on the Shelf, or chosen. */
export function BringIn() {
  const busy = useShelf((state) => state.busy);
  const input = useRef<HTMLInputElement>(null);
  return (
    <aside className="bring-in" aria-label="Make and bring in">
      <MakeWorld />
      <div className="drop-zone">
        <div className="row-line">
          <Icon name="bringIn" />
          <strong className="grow">Drop files here</strong>
          <Button variant="plain" disabled={busy} onClick={() => input.current!.click()}>
            Choose
          </Button>
          <input
            ref={input}
            type="file"
            className="visually-hidden"
            tabIndex={-1}
            aria-label="Files to bring in"
            multiple
            accept={ENDINGS}
            onChange={(event) => {
              bringIn([...(event.target.files ?? [])], null);
              event.target.value = "";
            }}
          />
        </div>
        <ul>
          {FILE_KINDS.map(({ name, ending }) => (
            <li key={ending}>
              <Icon name="file" />
              <span>{name}</span>
              <span className="quiet mono">{ending}</span>
            </li>
          ))}
        </ul>
      </div>
      <p className="quiet said">The file of a world that is here becomes one revision. Loose logs go to the world that they name, or that they are dropped on.</p>
    </aside>
  );
}
