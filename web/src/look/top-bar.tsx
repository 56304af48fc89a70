import Button from "react-bootstrap/Button";
import { Link, useLocation } from "react-router";
import { BENCH } from "../session/commands/bench.ts";
import { SHELF } from "../session/commands/shelf.ts";
import { useProject, useProofs, useSaving, useShelf } from "../session/hooks.ts";
import { tally } from "../session/proofs.ts";
import type { SaveState } from "../session/saving.ts";
import { Icon } from "./icon.tsx";
import { IconButton } from "./icon-button.tsx";
import { showActs } from "./act-finder.tsx";
import { Pebble } from "./pebble.tsx";
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
      <Pebble kind={failing > 0 ? "fail" : "pass"} radius={4.5} label={failing > 0 ? `${failing} of ${logs} logs do not hold` : `all ${logs} logs hold`} />
      <span aria-hidden="true">{failing > 0 ? failing : logs}</span>
    </span>
  );
}

function ShelfTools() {
  // Undo and redo become possible as acts are done.
  const busy = useShelf((state) => state.busy);
  useShelf((state) => state.done);
  return (
    <>
      <span className={`saving ${busy ? "saving" : "saved"}`} role="status">
        <Icon name={busy ? "waiting" : "check"} />
        {busy ? "at work" : "all saved"}
      </span>
      <IconButton command={SHELF.undo} icon="undo" />
      <IconButton command={SHELF.redo} icon="redo" />
      <HelpButton />
    </>
  );
}

function HelpButton() {
  return (
    <Button variant="bare" className="btn-icon" title="Acts and keys (? or Ctrl K)" aria-label="Acts and keys" onClick={showActs}>
      <Icon name="help" />
    </Button>
  );
}

function BenchTools() {
  const saving = useSaving();
  // Undo and redo become possible as the history changes.
  useProject((state) => state.history);
  return (
    <>
      <span className={`saving ${saving.state}`} role="status" title={saving.message ?? undefined}>
        <Icon name={saving.state === "saved" ? "check" : saving.state === "saving" ? "waiting" : "attention"} />
        {savingText(saving)}
      </span>
      <IconButton command={BENCH.undo} icon="undo" />
      <IconButton command={BENCH.redo} icon="redo" />
      <HelpButton />
    </>
  );
}

function savingText({ state, revision, waiting, message }: SaveState): string {
  const edits = `${waiting} ${waiting === 1 ? "edit" : "edits"}`;
  switch (state) {
    case "saved":
      return `saved, revision ${revision}`;
    case "saving":
      return "saving";
    case "offline":
      return `offline, ${edits} kept here`;
    case "refused":
      return `not saved, ${edits} kept here: ${message ?? ""}`;
  }
}
