import type { RevisionRow } from "../models/revision-row.ts";

/** The revisions of a world as Markdown, the newest first: the journal that a bundle carries. */
export function journalText(
  name: string,
  revisions: readonly Pick<RevisionRow, "number" | "summary" | "note" | "savedAt">[],
): string {
  const entries = [...revisions].reverse().map(({ number, summary, note, savedAt }) => {
    const said = note === null ? "" : `\n${note.trim().replace(/^(#+ )/gm, "##$1")}\n`;
    return `## Revision ${number}, ${savedAt.toISOString().slice(0, 10)}\n\n${summary}\n${said}`;
  });
  return `# ${name}\n\n${entries.join("\n")}`;
}
