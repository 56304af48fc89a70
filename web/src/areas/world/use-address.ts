import { session } from "../../page-session.ts";
import { useEffect, useRef } from "react";
import { NavigationType, useLocation, useNavigationType, useSearchParams } from "react-router";
import { useProject } from "../../use-session.ts";

/** A frame as an address says it. */
function frameIn(query: URLSearchParams): number | null {
  const asked = query.get("f");
  return asked !== null && /^\d{1,9}$/.test(asked) ? Number(asked) : null;
}

/** Back and forward show the room, log and frame of the address that they lead to. */
function useBackAndForward(): void {
  const { key, search } = useLocation();
  const way = useNavigationType();
  const before = useRef(key);
  useEffect(() => {
    // The address that the world was opened with is read once it is there.
    if (before.current === key) return;
    before.current = key;
    const { project } = session.project.store.getState();
    if (way !== NavigationType.Pop || project === null || session.benchStore.getState().walk !== null) return;
    const query = new URLSearchParams(search);
    session.playing.pause();
    session.shownLog.showAddress(project, query.get("room"), query.get("log"), frameIn(query));
  }, [key, search, way]);
}

/** The address carries room, log and frame: read when a world was opened, written when they change. */
export function useAddress(): void {
  const [query] = useSearchParams();
  const first = useRef(query);
  const phase = useProject((state) => state.phase);
  useBackAndForward();
  useEffect(() => {
    const { project } = session.project.store.getState();
    if (phase !== "ready" || project === null) return;
    const { current } = first;
    const fault = session.shownLog.showAddress(project, current.get("room"), current.get("log"), frameIn(current));
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
