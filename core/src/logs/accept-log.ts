import type { InputLog } from "./input-log.ts";

/** A note that begins so is the reason for which the walk was accepted. */
export const ACCEPTED = "Accepted: ";

/**
 * The log with its present walk accepted: "this is how it should walk" (formats.md section 2). The reason stands among
 * its notes; one for a walk accepted before makes room for it.
 * @param fingerprint of the walk; null: none is accepted any more
 */
export function acceptWalk(log: InputLog, fingerprint: string | null, reason: string): InputLog {
  const notes = log.notes.filter((note) => !note.startsWith(ACCEPTED));
  const said = reason.replace(/\s+/g, " ").trim();
  return {
    ...log,
    accept: fingerprint,
    notes: fingerprint === null || said === "" ? notes : [...notes, `${ACCEPTED}${said}`],
  };
}
