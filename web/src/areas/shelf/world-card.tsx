import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { Pebble } from "../../look/pebble.tsx";
import { plural } from "../../look/plural.ts";
import { useShelf } from "../../use-shelf.ts";
import type { ShelfPicture, ShelfPictures } from "../../session/shelf/shelf-pictures.ts";
import type { ShownLog, ShownWorld } from "../../session/shelf/shelf.ts";
import { agoText } from "./ago-text.ts";
import { Miniature } from "./miniature.tsx";
import { WorldActs } from "./world-acts.tsx";
import { WorldName } from "./world-name.tsx";
import { WorldPebbles } from "./world-pebbles.tsx";

interface Props {
  readonly world: ShownWorld;
  readonly pictures: ShelfPictures;
}

const MOST_LISTED = 3;

/** A world on the shelf: its rooms, its checks as pebbles, and which of them fail. */
export function WorldCard({ world, pictures }: Props) {
  const [naming, setNaming] = useState(false);
  const [picture, setPicture] = useState<ShelfPicture | null>(null);
  const unsaved = useShelf((state) => state.unsaved.get(world.id) ?? 0);
  const { id, revision, shownLogs } = world;
  // Another picture once it is another world, or another of its logs is the one to be drawn.
  const drawn = `${revision} ${shownLogs.length} ${shownLogs.find((log) => !log.holds)?.log ?? ""}`;
  const newest = useRef(world);
  useEffect(() => {
    newest.current = world;
  }, [world]);
  useEffect(() => {
    let wanted = true;
    void pictures.picture(newest.current).then((made) => {
      if (wanted && made) setPicture(made);
    });
    return () => {
      wanted = false;
    };
  }, [id, drawn, pictures]);
  const failing = shownLogs.filter((log) => !log.holds);
  const first = failing[0];
  return (
    <article
      className={`world-card${failing.length > 0 ? " failing-world" : ""}`}
      aria-label={world.name}
      data-world={id}
    >
      <Miniature picture={picture} />
      <div className="world-body">
        <div className="row-line">
          <WorldName world={world} naming={naming} onDone={() => setNaming(false)} />
          {!naming && (
            <span className="quiet">
              {plural(world.rooms, "room")}, {plural(world.logs, "log")}, revision {revision}
            </span>
          )}
          <span className="grow" />
          <WorldActs world={world} onRename={() => setNaming(true)} />
        </div>
        {world.logs === 0 ? (
          <p>No logs yet. Walk through it once and keep the walk.</p>
        ) : (
          <WorldPebbles logs={shownLogs} notRun={world.logs - shownLogs.length} />
        )}
        {failing.length > 0 && (
          <ul className="failing">
            {failing.slice(0, MOST_LISTED).map((log) => (
              <FailingLog key={log.log} world={id} log={log} />
            ))}
            {failing.length > MOST_LISTED && (
              <li className="quiet">and {plural(failing.length - MOST_LISTED, "more log")}</li>
            )}
          </ul>
        )}
        <WorldFoot world={world} unsaved={unsaved} first={first} id={id} />
      </div>
    </article>
  );
}

/** What was changed last, and the ways in. */
function WorldFoot({
  world,
  unsaved,
  first,
  id,
}: {
  readonly world: ShownWorld;
  readonly unsaved: number;
  readonly first: ShownLog | undefined;
  readonly id: string;
}) {
  return (
    <div className="row-line world-foot">
      <span className="world-summary" title={world.summary}>
        {world.summary}
      </span>
      <span className="quiet">{agoText(world.savedAt, Date.now())}</span>
      {unsaved > 0 && <span className="attention">{plural(unsaved, "edit")} not saved, kept in this browser</span>}
      <span className="grow" />
      {first?.first && (
        <Link to={addressOf(id, first)} className="btn btn-plain">
          <Pebble kind="fail" label={null} /> Open at frame {first.first.frame}
        </Link>
      )}
      <Link to={`/w/${id}/bench`} className="btn btn-plain">
        Open
      </Link>
    </div>
  );
}

function addressOf(world: string, log: ShownLog): string {
  return `/w/${world}/bench?log=${log.log}&f=${log.first?.frame ?? 0}`;
}

function FailingLog({ world, log }: { readonly world: string; readonly log: ShownLog }) {
  return (
    <li>
      <Pebble kind={log.first?.verdict === "unreached" ? "unreached" : "fail"} />
      <Link to={addressOf(world, log)}>{log.title}</Link>
      <span className="mono">{log.first?.check ?? ""}</span>
      <span className="quiet">{log.refused ?? log.first?.seen ?? ""}</span>
    </li>
  );
}
