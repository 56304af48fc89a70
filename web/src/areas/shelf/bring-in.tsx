import { useRef } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../../look/icon.tsx";
import { useShelf } from "../../session/hooks.ts";
import { FILE_KINDS } from "../../session/shelf-files.ts";
import { bringIn } from "../../session/shelf-store.ts";

/** How files come in: dropped anywhere on the Shelf, or chosen here. */
export function BringIn() {
  const busy = useShelf((state) => state.busy);
  const input = useRef<HTMLInputElement>(null);
  return (
    <aside className="bring-in" aria-label="Bring in files">
      <div className="row-line">
        <h2>Bring in a world</h2>
        <span className="quiet">or the logs of one</span>
      </div>
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
            accept=".json,.zip,.inputs,.csv"
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
      <dl className="said">
        <dt>A world that is here already</dt>
        <dd>What its file changed becomes one revision. Undo takes it back.</dd>
        <dt>Loose logs</dt>
        <dd>They go to the world that they name. Drop them on a world to choose it.</dd>
        <dt>A file that is not in order</dt>
        <dd>Is refused with the place, and nothing of it is kept.</dd>
      </dl>
    </aside>
  );
}
