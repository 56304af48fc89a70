import { useEffect } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { Icon } from "../../look/icon.tsx";
import { ToggleField } from "../../look/toggle-field.tsx";
import { session } from "../../page-session.ts";
import { useProject } from "../../use-session.ts";

/** The link at which others play the world: off, or on at an address to hand round. */
export function PlaytestStrip() {
  const worldId = useProject((state) => state.worldId);
  const ready = useProject((state) => state.phase === "ready");
  const revision = useStore(session.saveStore, (state) => state.revision);
  const link = useStore(session.playtestLink.store, (state) => (state.world === worldId ? state.link : null));
  // An entry that was deleted makes room for another play.
  const entries = useStore(session.journal.store, (state) => state.entries.length);
  useEffect(() => {
    if (ready) void session.playtestLink.read();
  }, [ready, worldId, revision, entries]);
  if (link === null) return null;
  return (
    <section className="playtest" aria-label="Playtest link">
      <ToggleField label="Playtest link" value={link.on} onValue={(on) => void session.playtestLink.switch(on)} />
      {!link.on && (
        <span className="quiet">
          Others play the world at an address of its own. What they press comes back as a log, what they say as an
          opinion.
        </span>
      )}
      {link.on && link.fault !== null && (
        <span className="attention" role="alert">
          Nobody can play: {link.fault}.
        </span>
      )}
      {link.address !== null && <PlaytestAddress address={link.address} />}
      {link.on && (
        <span className="quiet">
          {link.received} of {link.most} received
        </span>
      )}
    </section>
  );
}

/** Where the world can be played. */
function PlaytestAddress({ address }: { readonly address: string }) {
  return (
    <>
      <a className="link mono" href={address} target="_blank" rel="noreferrer">
        {address}
      </a>
      <Button
        variant="plain"
        onClick={() => {
          void navigator.clipboard.writeText(address);
          session.project.notice("The address is in the clipboard. It holds until the link is switched off.", "info");
        }}
      >
        <Icon name="copy" /> Copy
      </Button>
      {/^http:\/\/(127\.|localhost|\[::1\])/.test(address) && (
        <span
          className="quiet"
          title="Started with KEEN_PEBBLE_PLAY_HOST=0.0.0.0 it serves others on your network, too"
        >
          on this machine only
        </span>
      )}
    </>
  );
}
