import { useEffect, useRef } from "react";
import { session } from "../page-session.ts";

/**
 * A text that does not read yet, kept in this browser over a closed tab.
 * @param name what it is of, such as `room/intake-hall`
 * @param onKept takes the one that was kept; `isWanted` says whether it still is
 */
export function useDraft(
  name: string,
  onKept: (text: string, isWanted: () => boolean) => void | Promise<void>,
): { readonly keep: (text: string | null) => void } {
  const newest = useRef(onKept);
  useEffect(() => {
    newest.current = onKept;
  });
  useEffect(() => {
    let wanted = true;
    const { worldId } = session.project.store.getState();
    if (worldId === null) return;
    void session.outbox.keptDraft(worldId, name).then((kept) => {
      if (kept !== null && wanted) void newest.current(kept, () => wanted);
    });
    return () => {
      wanted = false;
    };
  }, [name]);
  return {
    keep: (text) => {
      const { worldId } = session.project.store.getState();
      if (worldId !== null) void session.outbox.keepDraft(worldId, name, text);
    },
  };
}
