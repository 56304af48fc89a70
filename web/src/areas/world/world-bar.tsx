import { Icon } from "../../look/icon.tsx";
import { IconButton } from "../../look/icon-button.tsx";
import { Pebble } from "../../look/pebble.tsx";
import { plural } from "../../look/plural.ts";
import type { WorldArea } from "../../look/top-bar.tsx";
import { HelpButton, TopBar } from "../../look/top-bar.tsx";
import { session } from "../../page-session.ts";
import type { SaveState } from "../../session/project/saving.ts";
import { tally } from "../../session/proofs/proofs.ts";
import { useProject, useProofs, useSaving } from "../../use-session.ts";

/** The top bar of a world's areas. */
export function WorldBar({ area }: { readonly area: WorldArea }) {
  const id = useProject((state) => state.worldId);
  const name = useProject((state) => state.project?.world.name ?? null);
  return (
    <TopBar
      area={area}
      world={id === null ? null : { id, name }}
      proofs={<HoldingLogs />}
      tools={name !== null && <WorldTools />}
    />
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

function WorldTools() {
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
