import { session } from "../page-session.ts";
import Button from "react-bootstrap/Button";
import { Link, useLocation } from "react-router";
import { useProject, useProofs, useSaving, useShelf } from "../use-session.ts";
import { tally } from "../session/proofs/proofs.ts";
import type { SaveState } from "../session/project/saving.ts";
import { Icon } from "./icon.tsx";
import { IconButton } from "./icon-button.tsx";
import { showActs } from "./act-finder.tsx";
import { Pebble } from "./pebble.tsx";
import { plural } from "./plural.ts";
import { Wordmark } from "./wordmark.tsx";
import { WorldSwitch } from "./world-switch.tsx";
import "./top-bar.css";

/** The areas of one world, by the ends of their addresses. */
export const WORLD_AREAS = ["bench", "floorplan", "proofs", "journal"] as const;
export type WorldArea = (typeof WORLD_AREAS)[number];

/** Wordmark, world, areas, how saving stands, undo and help. */
export function TopBar({ area }: { readonly area: WorldArea | "shelf" }) {
  // Room, log and frame go along from area to area.
  const { search } = useLocation();
  const worldId = useProject((state) => state.worldId);
  const name = useProject((state) => state.project?.world.name ?? null);
  const inWorld = area !== "shelf";
  return (
    <header className="top">
      <Link to="/" className="home">
        <Wordmark />
        Keen Pebble
      </Link>
      {inWorld && name !== null && worldId !== null && <WorldSwitch worldId={worldId} name={name} area={area} />}
      <nav className="areas" aria-label="Areas">
        <Link to="/" aria-current={inWorld ? undefined : "page"}>
          Shelf
        </Link>
        {inWorld && worldId !== null && (
          <>
            {WORLD_AREAS.map((each) => (
              <Link key={each} to={`/w/${worldId}/${each}${search}`} aria-current={area === each ? "page" : undefined}>
                {each[0]!.toUpperCase()}
                {each.slice(1)} {each === "proofs" && <HoldingLogs />}
              </Link>
            ))}
          </>
        )}
      </nav>
      <span className="grow" />
      {inWorld ? name !== null && <BenchTools /> : <ShelfTools />}
    </header>
  );
}

/** How many logs hold: the number alone where all do, else how many do not. */
function HoldingLogs() {
  const logs = useProofs((state) => tally(state).logs);
  const holding = useProofs((state) => tally(state).holding);
  if (logs === 0) return null;
  const failing = logs - holding;
  return (
    <span className={`row-line holding${failing > 0 ? " attention" : ""}`} title={`${holding} of ${logs} logs hold`}>
      <Pebble
        kind={failing > 0 ? "fail" : "pass"}
        radius={4.5}
        label={failing > 0 ? `${failing} of ${logs} logs do not hold` : `all ${logs} logs hold`}
      />
      <span aria-hidden="true">{failing > 0 ? failing : logs}</span>
    </span>
  );
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
      <IconButton command={session.commands.shelf.undo} icon="undo" />
      <IconButton command={session.commands.shelf.redo} icon="redo" />
      <HelpButton />
    </>
  );
}

function HelpButton() {
  return (
    <Button
      variant="bare"
      className="btn-icon"
      title="Acts and keys (? or Ctrl K)"
      aria-label="Acts and keys"
      onClick={showActs}
    >
      <Icon name="help" />
    </Button>
  );
}

function BenchTools() {
  const saving = useSaving();
  return (
    <>
      <span className={`saving ${isCalm(saving) ? saving.state : "offline"}`} role="status" title={savingHint(saving)}>
        <Icon name={!isCalm(saving) ? "attention" : saving.state === "saved" ? "check" : "waiting"} />
        {savingText(saving)}
      </span>
      <IconButton command={session.commands.bench.undo} icon="undo" />
      <IconButton command={session.commands.bench.redo} icon="redo" />
      <HelpButton />
    </>
  );
}

const isCalm = ({ state, refused }: SaveState): boolean => state !== "offline" && refused.length === 0;

function savingText({ state, revision, waiting, refused, keeps }: SaveState): string {
  switch (state) {
    case "saved":
      return refused.length > 0
        ? `${plural(refused.length, "edit")} refused, all others saved`
        : `saved, revision ${revision}`;
    case "saving":
      return "saving";
    case "offline":
      return `offline, ${plural(waiting, "edit")} ${keeps ? "kept here" : "not kept: leave this tab open"}`;
  }
}

function savingHint({ message, keeps }: SaveState): string | undefined {
  const said = keeps ? [] : ["This browser keeps nothing for this page: what is not saved yet is lost with this tab."];
  return [...(message === null ? [] : [message]), ...said].join(" ") || undefined;
}
