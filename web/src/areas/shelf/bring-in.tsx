import { shelfParts, takeFiles } from "../../page-shelf.ts";
import Button from "react-bootstrap/Button";
import { FileButton } from "../../look/file-button.tsx";
import { Icon } from "../../look/icon.tsx";
import { useShelf } from "../../use-shelf.ts";
import { FILE_KINDS } from "../../session/shelf/shelf-files.ts";
import { MakeWorld } from "./make-world.tsx";

/** How worlds come to be here: made, dropped anywhere on the Shelf, or chosen. */
export function BringIn() {
  const busy = useShelf((state) => state.busy);
  return (
    <aside className="bring-in" aria-label="Make and bring in">
      <MakeWorld />
      <div className="drop-zone">
        <div className="row-line">
          <Icon name="bringIn" />
          <strong className="grow">Drop files here</strong>
          <FileButton
            name="Files to bring in"
            accept=""
            multiple
            disabled={busy}
            onFiles={(files) => void takeFiles(files, null)}
          >
            Choose
          </FileButton>
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
        <Button variant="plain" disabled={busy} onClick={shelfParts.mapImport.open}>
          <Icon name="bringIn" /> Bring in a map from your game
        </Button>
      </div>
      <p className="quiet said">
        The file of a world that is here becomes one revision. Loose logs go to the world that they name, or that they
        are dropped on.
      </p>
    </aside>
  );
}
