import type { EntryRow } from "../models/entry-row.ts";
import type { ProofRunRow } from "../models/proof-run-row.ts";
import type { RevisionRow } from "../models/revision-row.ts";

/** Bytes of all pictures that stand in the text; older ones than these are left out. */
const MOST_PICTURES = 16 * 1024 * 1024;

type Revision = Pick<RevisionRow, "number" | "summary" | "note" | "savedAt">;

/**
 * The journal of a world as Markdown, the newest first, grouped by day: revisions with what the proofs said, and among
 * them what was written by hand, its pictures in the text. A bundle carries it too.
 * @param revisions and entries, the first one first
 * @param runs the finished runs of revisions; the text says nothing of proofs where there are none
 */
export function journalText(
  name: string,
  revisions: readonly Revision[],
  entries: readonly EntryRow[],
  runs: readonly Pick<ProofRunRow, "revision" | "total" | "holds">[],
): string {
  const said = new Map(runs.map((run) => [run.revision, run]));
  const pictured = withPictures(entries);
  const all = [
    ...revisions.map((revision) => ({ at: revision.savedAt, text: revisionText(revision, said.get(revision.number)) })),
    ...entries.map((entry) => ({ at: entry.writtenAt, text: entryText(entry, pictured.has(entry.id)) })),
  ].sort((one, other) => other.at.getTime() - one.at.getTime());
  let day = "";
  const parts = all.map(({ at, text }) => {
    const date = at.toISOString().slice(0, 10);
    const head = date === day ? "" : `## ${date}\n\n`;
    day = date;
    return `${head}${text}`;
  });
  return `# ${name}\n\n${parts.join("\n")}`;
}

function revisionText(
  { note, number, summary }: Revision,
  run: Pick<ProofRunRow, "total" | "holds"> | undefined,
): string {
  const proofs = run === undefined ? "" : `\n${heldText(run)}\n`;
  return `### Revision ${number}\n\n${summary}\n${proofs}${note === null ? "" : `\n${belowHeads(note)}\n`}`;
}

function heldText({ holds, total }: Pick<ProofRunRow, "total" | "holds">): string {
  const logs = total === 1 ? "log holds" : "logs hold";
  return `${holds === total && total > 1 ? `All ${total}` : `${holds} of ${total}`} ${logs}.`;
}

const KIND_NAMES = { reason: "Reason", fault: "Fault", opinion: "Opinion" } as const;

function entryText({ frame, kind, log, picture, revision, sender, text }: EntryRow, isPictured: boolean): string {
  const place = [...(log === null ? [] : [`log ${log}`]), ...(frame === null ? [] : [`frame ${frame}`])].join(", ");
  const shown =
    picture === null
      ? ""
      : isPictured
        ? `\n![${place || "picture"}](data:image/png;base64,${picture.toString("base64")})\n`
        : "\n(Its picture is left out here.)\n";
  const at = [`at revision ${revision}`, ...(place === "" ? [] : [place])].join(", ");
  const said = sender === null ? belowHeads(text) : `From outside, by ${asWritten(sender)}:\n\n${asWritten(text)}`;
  return `### ${KIND_NAMES[kind]}, ${at}\n\n${said}\n${shown}`;
}

/** The newest entries whose pictures stand in the text. */
function withPictures(entries: readonly EntryRow[]): ReadonlySet<number> {
  let bytes = 0;
  const found = new Set<number>();
  for (const { id, picture } of [...entries].reverse()) {
    bytes += picture?.length ?? 0;
    if (picture !== null && bytes <= MOST_PICTURES) found.add(id);
  }
  return found;
}

/** What came from outside means nothing in Markdown: no head, no link, no picture, no HTML. */
const asWritten = (text: string): string =>
  text
    .trim()
    .replace(/[\\`*_{}[\]<>()#+\-.!|~&:]/g, "\\$&")
    .replace(/^[ \t]+/gm, "");

/** Heads of what somebody wrote stand below the text's own. */
const belowHeads = (text: string): string => text.trim().replace(/^(#+ )/gm, "###$1");
