import { shelfParts } from "../page-shelf.ts";
import Dropdown from "react-bootstrap/Dropdown";
import { Link } from "react-router";
import { useShelf } from "../use-shelf.ts";
import { plural } from "./plural.ts";

interface Props {
  readonly worldId: string;
  readonly name: string;
  /** The area that is shown, and of another world will be. */
  readonly area: string;
}

/** The open world's name; pressed, it leads to the same area of another world (interface.md, Bench 1). */
export function WorldSwitch({ worldId, name, area }: Props) {
  const worlds = useShelf((state) => state.worlds);
  const fault = useShelf((state) => state.fault);
  const others = worlds?.filter(({ id }) => id !== worldId);
  return (
    <Dropdown onToggle={(shown) => shown && void shelfParts.shelf.loadShelf()}>
      <Dropdown.Toggle variant="bare" className="world-switch" title="To another world">
        {name}
      </Dropdown.Toggle>
      <Dropdown.Menu>
        {fault !== null ? (
          <Dropdown.ItemText className="attention">{fault}</Dropdown.ItemText>
        ) : others === undefined ? (
          <Dropdown.ItemText className="quiet">looking</Dropdown.ItemText>
        ) : (
          <>
            {others.map((world) => (
              <Dropdown.Item key={world.id} as={Link} to={`/w/${world.id}/${area}`}>
                {world.name}{" "}
                <span className="quiet">
                  {plural(world.rooms, "room")}, {plural(world.logs, "log")}
                </span>
              </Dropdown.Item>
            ))}
            {others.length === 0 && <Dropdown.ItemText className="quiet">There is no other world</Dropdown.ItemText>}
          </>
        )}
        <Dropdown.Divider />
        <Dropdown.Item as={Link} to="/">
          Make or import one on the Shelf
        </Dropdown.Item>
      </Dropdown.Menu>
    </Dropdown>
  );
}
