import type { PathDifference } from "@keen-pebble/core/check";
import { roundPx } from "@keen-pebble/core/analyse";
import type { BoardRow } from "../../session/proofs/board.ts";

/** What a row says of its path: a few words, and how they are to be looked at. */
export function pathText({
  proof,
  path,
}: BoardRow): { readonly text: string; readonly kind: "same" | "differs" | "bad" } | null {
  if (proof === null) return null;
  if (proof.refused !== null) return { text: "cannot be run", kind: "bad" };
  if (path?.kind === "differs")
    return proof.holds
      ? { text: `differs from ${path.at.frame}`, kind: "differs" }
      : { text: `fails, from ${path.at.frame}`, kind: "bad" };
  if (!proof.holds) return { text: path?.kind === "same" ? "fails, same" : "fails", kind: "bad" };
  return path?.kind === "same" ? { text: "same", kind: "same" } : null;
}

/** Where two paths part: `first differs at frame 13: y 221, was 222`. */
export function partingText({ frame, was, is }: PathDifference): string {
  if (is === null) return `ends at frame ${frame - 1}, went on`;
  if (was === null) return `goes on after frame ${frame - 1}, where it ended`;
  const parts = [
    ...(is.room === was.room ? [] : [`room ${is.room}, was ${was.room}`]),
    ...(is.x === was.x ? [] : [`x ${roundPx(is.x)}, was ${roundPx(was.x)}`]),
    ...(is.y === was.y ? [] : [`y ${roundPx(is.y)}, was ${roundPx(was.y)}`]),
  ];
  return `first differs at frame ${frame}: ${parts.join("; ")}`;
}
