import type { Verdict } from "@keen-pebble/core";
import { fromPlain, logHolds } from "@keen-pebble/core";
import type { Project } from "@keen-pebble/core";
import type { WorldEntry } from "@keen-pebble/server/api";
import { useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { RoomPicture } from "../../field/room-picture.ts";
import { Pebble } from "../../look/pebble.tsx";
import { plural } from "../../look/plural.ts";
import { logOrder, logTitle } from "../../logs/log-title.ts";
import { openWorld } from "../../session/api-client.ts";
import { SimulationClient } from "../../session/simulation-client.ts";
import { agoText } from "./ago-text.ts";

interface LogState {
  readonly id: string;
  readonly title: string;
  readonly verdicts: readonly Verdict[];
  /** Why it cannot be run, or null. */
  readonly refused: string | null;
}

interface Looked {
  readonly project: Project;
  readonly logs: readonly LogState[];
}

/** A world on the shelf: its first room, its checks as pebbles, and which of them fail. */
export function WorldCard({ world }: { readonly world: WorldEntry }) {
  const [looked, setLooked] = useState<Looked | null>(null);
  useEffect(() => {
    let wanted = true;
    void lookAt(world.id).then((found) => {
      if (wanted) setLooked(found);
    });
    return () => {
      wanted = false;
    };
  }, [world]);
  const verdicts = looked?.logs.flatMap((log) => log.verdicts) ?? [];
  const failing = looked?.logs.filter((log) => log.refused !== null || !logHolds(log.verdicts)) ?? [];
  const count = (kind: Verdict["verdict"]): number => verdicts.filter((v) => v.verdict === kind).length;
  return (
    <article className="world-card" aria-label={world.name}>
      <Miniature project={looked?.project ?? null} />
      <div className="world-body">
        <div className="row-line">
          <h2>
            <Link to={`/w/${world.id}/bench`} className="world-name">
              {world.name}
            </Link>
          </h2>
          <span className="quiet">
            {plural(world.rooms, "room")}, {plural(world.logs, "log")}, revision {world.revision}
          </span>
        </div>
        {looked && looked.logs.length === 0 && <p>No logs yet. Walk through it once and keep the walk.</p>}
        {looked && looked.logs.length > 0 && (
          <>
            <div className="pebble-row" aria-hidden="true">
              {looked.logs.map((log) => (
                <span key={log.id} title={log.title}>
                  {log.verdicts.map((v, i) => (
                    <Pebble key={i} kind={v.verdict} radius={4} label={null} />
                  ))}
                </span>
              ))}
            </div>
            <div className="row-line tallies">
              <Pebble kind="pass" label={null} /> {count("pass")} hold
              {count("fail") > 0 && (
                <>
                  <Pebble kind="fail" label={null} /> {count("fail")} fail
                </>
              )}
              {count("unreached") > 0 && (
                <>
                  <Pebble kind="unreached" label={null} /> {count("unreached")} not reached
                </>
              )}
            </div>
          </>
        )}
        {failing.length > 0 && (
          <ul className="failing">
            {failing.slice(0, 3).map((log) => (
              <FailingLog key={log.id} world={world.id} log={log} />
            ))}
          </ul>
        )}
        <div className="row-line world-foot">
          <span>
            {world.summary}, {agoText(world.savedAt, Date.now())}
          </span>
          <span className="grow" />
          <Link to={`/w/${world.id}/bench`} className="btn btn-plain">
            Open
          </Link>
        </div>
      </div>
    </article>
  );
}

function FailingLog({ world, log }: { readonly world: string; readonly log: LogState }) {
  const first = log.verdicts.find((v) => v.verdict !== "pass");
  return (
    <li>
      <Pebble kind="fail" />
      <Link to={`/w/${world}/bench?log=${log.id}&f=${first?.frame ?? 0}`}>{log.title}</Link>
      <span className="mono">{first?.check ?? ""}</span>
      <span className="quiet">{log.refused ?? first?.seen ?? ""}</span>
    </li>
  );
}

function Miniature({ project }: { readonly project: Project | null }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const room = project?.world.rooms[0];
    if (!project || !room) return;
    const { width, height } = canvas.current!;
    const c = canvas.current!.getContext("2d")!;
    c.clearRect(0, 0, width, height);
    const across = room.width * project.world.tileSize;
    const down = room.height * project.world.tileSize;
    const zoom = Math.min((width - 16) / across, (height - 16) / down, 2);
    const snapped = zoom >= 1 ? Math.floor(zoom) : zoom;
    c.imageSmoothingEnabled = snapped < 1;
    new RoomPicture(project.world).draw(c, project.world, room, snapped, Math.round((width - across * snapped) / 2), Math.round((height - down * snapped) / 2), width, height);
  }, [project]);
  return <canvas ref={canvas} className="miniature" width={500} height={320} aria-hidden="true" />;
}

async function lookAt(id: string): Promise<Looked | null> {
  const client = new SimulationClient();
  try {
    const opened = await openWorld(id);
    const project: Project = { world: fromPlain(opened.world), logs: opened.logs };
    client.load(project);
    const entries = logOrder(project.logs).map((log) => [log, project.logs[log]!] as const);
    const answers = await client.verdicts(entries.map(([, text]) => text));
    const logs = entries.map(([log, text], i) => {
      const answer = answers[i]!;
      const refused = "refused" in answer ? answer.refused : null;
      return { id: log, title: logTitle(text, log), verdicts: "refused" in answer ? [] : answer, refused };
    });
    return { project, logs };
  } catch {
    // The card then shows what the list told.
    return null;
  } finally {
    client.close();
  }
}
