import { session } from "../../page-session.ts";
import { useEffect, useRef } from "react";
import { useNavigation, useSearchParams } from "react-router";
import { useProject } from "../../use-session.ts";

/** The address carries room, log and frame: read when a world was opened, written when they change. */
export function useAddress(): void {
  const [query, setQuery] = useSearchParams();
  const first = useRef(query);
  // It is another function after each change of the address, and must not start the reading again.
  const write = useRef(setQuery);
  useEffect(() => {
    write.current = setQuery;
  }, [setQuery]);
  // Somebody goes to another area, which is being loaded: writing the address of this one would call them back.
  const leaves = useRef(false);
  const { state: going } = useNavigation();
  useEffect(() => {
    leaves.current = going !== "idle";
  }, [going]);
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
        if (!leaves.current)
          write.current({ room, ...(log === null ? {} : { log }), f: String(shown) }, { replace: true });
      }, 150);
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [phase]);
}
