import { WorldBar } from "./world-bar.tsx";
import { session } from "../../page-session.ts";
import { useEffect } from "react";
import Button from "react-bootstrap/Button";
import { Link, Outlet, useLocation, useParams } from "react-router";
import { Notice } from "../../look/notice.tsx";
import { WORLD_AREAS } from "../../look/top-bar.tsx";
import { useProject } from "../../use-session.ts";
import { RefusedEdits } from "./refused-edits.tsx";
import { useTitle } from "./use-title.ts";
import { useAddress } from "./use-address.ts";

/** The areas of the world that the address names; another one begins afresh, with nothing left of the one before. */
export function WorldLayout() {
  const { world = "" } = useParams();
  return <OneWorld key={world} worldId={world} />;
}

/** It is opened once for all of its areas. */
function OneWorld({ worldId }: { readonly worldId: string }) {
  const { pathname } = useLocation();
  const phase = useProject((state) => state.phase);
  const message = useProject((state) => state.message);
  useOpenWorld(worldId);
  useAddress();
  const area = WORLD_AREAS.find((each) => pathname.endsWith(`/${each}`)) ?? "bench";
  useTitle(area);
  if (phase === "missing" || phase === "failed") {
    return (
      <div className="page">
        <WorldBar area={area} />
        <div className="area empty">
          <h1>{message}</h1>
          {phase === "missing" ? (
            <Link className="btn btn-main" to="/">
              To the Shelf
            </Link>
          ) : (
            <>
              <p className="quiet">Nothing is lost: what you did not see acknowledged is kept in this browser.</p>
              <Button variant="main" onClick={() => void session.project.openProject(worldId)}>
                Try again
              </Button>
            </>
          )}
        </div>
      </div>
    );
  }
  return (
    <div className="page">
      <WorldBar area={area} />
      <div className="notices">
        <RefusedEdits />
        <WorldNotice />
      </div>
      <Outlet />
    </div>
  );
}

function WorldNotice() {
  const told = useProject((state) => state.notice);
  return <Notice told={told} onDismiss={() => session.project.notice(null)} />;
}

function useOpenWorld(worldId: string): void {
  useEffect(() => {
    const stops = [
      session.shownLog.startBench(),
      session.walks.startWalks(),
      session.reEntries.startReEntry(),
      session.proofs.startProofs(),
      session.fixes.startFixes(),
      session.sound.startSound(),
      session.sheets.followSheets(),
      session.worldSettings.followStart(),
      session.byChance.followProject(),
      session.ownGame.startGhost(),
      session.firstMinute.startFirstMinute(),
    ];
    void session.project.openProject(worldId);
    return () => {
      session.reach.forget();
      session.walks.endWalk();
      // What is chosen, or being written down, is of this world: another one may have logs of the same names.
      session.board.chooseNone();
      session.entries.cancelFault();
      session.planCursor.forget();
      session.randomWalks.forgetRandomWalks();
      session.whichRules.forget();
      for (const stop of stops) stop();
      session.project.closeProject();
    };
  }, [worldId]);
}
