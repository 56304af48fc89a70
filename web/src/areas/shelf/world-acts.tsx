import { shelfParts } from "../../page-shelf.ts";
import type { WorldEntry } from "@keen-pebble/server/api";
import { BareButton } from "../../look/bare-button.tsx";
import Dropdown from "react-bootstrap/Dropdown";
import type { IconName } from "../../look/icon.tsx";
import { Icon } from "../../look/icon.tsx";
import { bundleAddress, worldFileAddress } from "../../session/project/api-client.ts";
import { useShelf } from "../../use-shelf.ts";

/** What can be done with a world on the shelf; all of it can be undone. */
export function WorldActs({ world, onRename }: { readonly world: WorldEntry; readonly onRename: () => void }) {
  return (
    <span className="world-acts">
      <Act icon="pen" name={`Rename ${world.name}`} act={onRename} />
      <Act icon="copy" name={`Copy ${world.name}`} act={() => shelfParts.shelf.copyOfWorld(world)} />
      <Dropdown align="end">
        <Dropdown.Toggle
          variant="bare"
          className="btn-icon bare-toggle"
          aria-label={`Save ${world.name} as a file`}
          title="Save as a file"
        >
          <Icon name="takeHome" />
        </Dropdown.Toggle>
        <Dropdown.Menu>
          <Dropdown.Item href={worldFileAddress(world.id)} download>
            World file
          </Dropdown.Item>
          <Dropdown.Item href={bundleAddress(world.id)} download>
            Bundle with logs and sheets
          </Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
      <Act icon="bin" name={`Take ${world.name} off the shelf`} act={() => shelfParts.shelf.takeOffShelf(world)} />
    </span>
  );
}

function Act({ icon, name, act }: { readonly icon: IconName; readonly name: string; readonly act: () => void }) {
  const busy = useShelf((state) => state.busy);
  return <BareButton icon={icon} name={name} disabled={busy} onClick={act} />;
}
