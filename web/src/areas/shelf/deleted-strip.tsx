import Button from "react-bootstrap/Button";
import { Icon } from "../../look/icon.tsx";
import { useShelf } from "../../session/hooks.ts";
import { putBack } from "../../session/shelf-store.ts";
import { agoText } from "./ago-text.ts";

const MOST_SHOWN = 3;

/** The worlds that were taken off the shelf last, each with a way back. */
export function DeletedStrip() {
  const deleted = useShelf((state) => state.deleted);
  const busy = useShelf((state) => state.busy);
  if (deleted.length === 0) return null;
  return (
    <section className="deleted" aria-label="Recently deleted">
      <span className="quiet">Recently deleted</span>
      {deleted.slice(0, MOST_SHOWN).map((world) => (
        <span key={world.key} className="row-line">
          <strong>{world.name}</strong>
          <span className="quiet">{agoText(world.deletedAt, Date.now())}</span>
          <Button variant="plain" disabled={busy} aria-label={`Put ${world.name} back`} onClick={() => putBack(world)}>
            <Icon name="undo" /> Put back
          </Button>
        </span>
      ))}
      {deleted.length > MOST_SHOWN && <span className="quiet">and {deleted.length - MOST_SHOWN} more</span>}
    </section>
  );
}
