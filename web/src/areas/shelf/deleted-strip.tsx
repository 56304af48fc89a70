import { shelfParts } from "../../page-shelf.ts";
import { useState } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../../look/icon.tsx";
import { useShelf } from "../../use-shelf.ts";
import { agoText } from "./ago-text.ts";

/** So many are shown without asking. */
const MOST_SHOWN = 2;

/** The worlds that were taken off the shelf and can be put back, the last ones first, each with a way back. */
export function DeletedStrip() {
  const deleted = useShelf((state) => state.deleted);
  const busy = useShelf((state) => state.busy);
  const [all, setAll] = useState(false);
  if (deleted.length === 0) return null;
  return (
    <section className={`deleted${all ? " all" : ""}`} aria-label="Recently deleted">
      <span className="quiet">Recently deleted</span>
      {(all ? deleted : deleted.slice(0, MOST_SHOWN)).map((world) => (
        <span key={world.key} className="row-line">
          <strong>{world.name}</strong>
          <span className="quiet">{agoText(world.deletedAt, Date.now())}</span>
          <Button
            variant="plain"
            disabled={busy}
            aria-label={`Put ${world.name} back`}
            onClick={() => shelfParts.shelf.putBack(world)}
          >
            <Icon name="undo" /> Put back
          </Button>
        </span>
      ))}
      {deleted.length > MOST_SHOWN && (
        <Button variant="plain" aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? "Show fewer" : `Show ${deleted.length - MOST_SHOWN} more`}
        </Button>
      )}
    </section>
  );
}
