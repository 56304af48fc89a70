import { shelfParts } from "../../page-shelf.ts";
import type { WorldEntry } from "@keen-pebble/server/api";
import { Link } from "react-router";
import Form from "react-bootstrap/Form";

/** A world's name, which opens it; or a field to give it another one. */
export function WorldName({
  world,
  naming,
  onDone,
}: {
  readonly world: WorldEntry;
  readonly naming: boolean;
  readonly onDone: () => void;
}) {
  if (!naming) {
    return (
      <h2>
        <Link to={`/w/${world.id}/bench`} className="world-name">
          {world.name}
        </Link>
      </h2>
    );
  }
  const keep = (name: string): void => {
    onDone();
    if (name.trim() !== "" && name.trim() !== world.name) shelfParts.shelf.renameWorld(world, name.trim());
  };
  return (
    <Form.Control
      className="naming"
      aria-label={`New name of ${world.name}`}
      defaultValue={world.name}
      maxLength={80}
      autoFocus
      onFocus={(event) => event.target.select()}
      onBlur={(event) => keep(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === "Enter") keep(event.currentTarget.value);
        if (event.key === "Escape") onDone();
      }}
    />
  );
}
