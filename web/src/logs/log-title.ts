/** The ids of a world's logs in the order in which they are shown: by title. */
export function logOrder(logs: Readonly<Record<string, string>>): string[] {
  const key = (id: string): string => `${logTitle(logs[id]!, id)}\0${id}`;
  return Object.keys(logs).sort((a, b) => (key(a) < key(b) ? -1 : 1));
}

/** A log's title, read from its header without reading all of it; its id where it has none. */
export function logTitle(text: string, id: string): string {
  const head = text.slice(0, text.indexOf("\n---"));
  return /^title (.+)$/m.exec(head)?.[1] ?? id;
}

/** An id for a log out of its title, one that is not taken yet. */
export function logIdFor(title: string, taken: readonly string[]): string {
  const plain = title
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 36);
  const base = plain === "" ? "walk" : plain;
  if (!taken.includes(base)) return base;
  for (let n = 2; ; n++) if (!taken.includes(`${base}-${n}`)) return `${base}-${n}`;
}
