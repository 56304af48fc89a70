import { useEffect } from "react";
import type { WorldArea } from "../../look/top-bar.tsx";
import { logTitle } from "../../session/log/log-title.ts";
import { useBench, useProject } from "../../use-session.ts";

/** Areas that are about one log. */
const OF_A_LOG: readonly WorldArea[] = ["bench", "proofs"];

/** Calls the tab after what it shows: log, world and area. */
export function useTitle(area: WorldArea): void {
  const world = useProject((state) => state.project?.world.name ?? null);
  const logs = useProject((state) => state.project?.logs ?? null);
  const log = useBench((state) => state.log);
  const text = log === null ? undefined : logs?.get(log);
  const title = log === null || text === undefined || !OF_A_LOG.includes(area) ? null : logTitle(text, log);
  useEffect(() => {
    const name = `${area[0]!.toUpperCase()}${area.slice(1)}`;
    document.title = [title, world, name, "Keen Pebble"].filter((part) => part !== null).join(" - ");
  }, [title, world, area]);
}
