import { Icon } from "../../look/icon.tsx";
import { IconButton } from "../../look/icon-button.tsx";
import { plural } from "../../look/plural.ts";
import { HelpButton, TopBar } from "../../look/top-bar.tsx";
import { shelfParts } from "../../page-shelf.ts";
import { useShelf } from "../../use-shelf.ts";

/** The top bar of the Shelf. */
export function ShelfBar() {
  return <TopBar area="shelf" tools={<ShelfTools />} />;
}

function ShelfTools() {
  const busy = useShelf((state) => state.busy);
  const unsaved = useShelf((state) => [...state.unsaved.values()].reduce((sum, count) => sum + count, 0));
  const state = busy ? "saving" : unsaved > 0 ? "offline" : "saved";
  return (
    <>
      <span
        className={`saving ${state}`}
        role="status"
        title={unsaved > 0 ? "They are saved once their world is opened and the server is there." : undefined}
      >
        <Icon name={busy ? "waiting" : unsaved > 0 ? "attention" : "check"} />
        {busy ? "at work" : unsaved > 0 ? `${plural(unsaved, "edit")} not saved yet` : "all saved"}
      </span>
      <IconButton command={shelfParts.shelfCommands.undo} icon="undo" />
      <IconButton command={shelfParts.shelfCommands.redo} icon="redo" />
      <HelpButton />
    </>
  );
}
