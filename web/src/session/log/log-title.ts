import type { Logs } from "@keen-pebble/core/edit";

const byNumbersToo = new Intl.Collator("en", { numeric: true });

/** The ids of a world's logs in the order in which they are shown: by title, the ninth walk before the tenth. */
export function logOrder(logs: Logs): string[] {
  const titles = new Map([...logs].map(([id, text]) => [id, logTitle(text, id)]));
  return [...logs.keys()].sort((a, b) => byNumbersToo.compare(titles.get(a)!, titles.get(b)!) || (a < b ? -1 : 1));
}

/** A log's title, read from its header without reading all of it; its id where it has none. */
export function logTitle(text: string, id: string): string {
  const head = text.slice(0, text.indexOf("\n---"));
  return /^title (.+)$/m.exec(head)?.[1] ?? id;
}

/** The rule set that a log names, read from its header; null where it goes by the default rules. */
export function rulesNamed(text: string): string | null {
  return /^rules (.+)$/m.exec(text.slice(0, text.indexOf("\n---")))?.[1] ?? null;
}

/** An id for a log out of its title, one that is not taken yet. */
export function freeSlug(title: string, taken: Iterable<string>): string {
  const plain = title
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 36);
  const base = plain === "" ? "walk" : plain;
  const gone = new Set(taken);
  if (!gone.has(base)) return base;
  for (let n = 2; ; n++) if (!gone.has(`${base}-${n}`)) return `${base}-${n}`;
}
