import { session } from "../../page-session.ts";
import { useEffect, useRef } from "react";
import { useSearchParams } from "react-router";
import { useProject } from "../../use-session.ts";

/** The address carries room, log and frame: read when a world was opened, written when they change. */
export function useAddress(): void {
  const [query] = useSearchParams();
  const first = useRef(query);
  const phase = useProject((state) => state.phase);
  useEffect(() => {
    const { project } = session.project.store.getState();
    if (phase !== "ready" || project === null) return;
    const asked = first.current.get("f");
    const frame = asked !== null && /^\d{1,9}$/.test(asked) ? Number(asked) : null;
    const fault = session.shownLog.showAddress(project, first.current.get("room"), first.current.get("log"), frame);
    if (fault !== null) session.project.notice(fault);
    void session.offeredWalk.offerKeptWalk();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = session.benchStore.subscribe(({ room, log, frame: shown, walk, playing }) => {
      // Browsers count how often an address changes; while it plays it would be too often.
      clearTimeout(timer);
      if (walk !== null || playing) return;
      timer = setTimeout(() => {
        const search = new URLSearchParams({ room, ...(log === null ? {} : { log }), f: String(shown) });
        session.asked.writeAddress.ask(project.world.id, search.toString());
      }, 150);
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [phase]);
}
