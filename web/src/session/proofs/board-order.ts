import type { BoardRow } from "./board.ts";

/** What the rows of the board are sorted by; `holds` has those first that do not hold, then goes by title. */
export const SORTS = ["holds", "title", "rules", "frames", "path", "checks"] as const;
export type Sort = (typeof SORTS)[number];

/** In which order the rows stand, and whether those of a tag stand together. */
export interface BoardOrder {
  readonly sort: Sort;
  readonly descending: boolean;
  readonly byTag: boolean;
}

/** A row of the board, or the head of the logs with a tag. */
export type BoardItem =
  | { readonly kind: "row"; readonly key: string; readonly row: BoardRow }
  | { readonly kind: "tag"; readonly key: string; readonly tag: string | null; readonly rows: readonly BoardRow[] };

const byNumbersToo = new Intl.Collator("en", { numeric: true });

/** What a row is sorted by; nothing known comes last either way round. */
const KEYS: Readonly<Record<Exclude<Sort, "holds">, (row: BoardRow) => number | string | null>> = {
  title: ({ title }) => title,
  rules: ({ rules }) => rules,
  frames: ({ proof }) => proof?.frames ?? null,
  // The one that differs first comes first.
  path: ({ path }) => (path?.kind === "differs" ? path.at.frame : null),
  checks: ({ proof }) => (proof === null ? null : proof.checks.length),
};

/** The rows in the order that was chosen; those that are alike in it stay as they came. */
export function sortedRows(rows: readonly BoardRow[], { descending, sort }: BoardOrder): readonly BoardRow[] {
  if (sort === "holds") return descending ? [...rows].reverse() : rows;
  const key = KEYS[sort];
  return [...rows].sort((one, other) => {
    const [a, b] = [key(one), key(other)];
    if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
    const way = typeof a === "string" ? byNumbersToo.compare(a, String(b)) : a - Number(b);
    return descending ? -way : way;
  });
}

/** What is shown one below the other: rows, or each tag with the rows that have it, those without any last. */
export function boardItems(rows: readonly BoardRow[], { byTag }: Pick<BoardOrder, "byTag">): readonly BoardItem[] {
  if (!byTag) return rows.map((row) => ({ kind: "row", key: row.log, row }));
  const tags = [...new Set(rows.flatMap((row) => row.tags))].sort(byNumbersToo.compare);
  const groups = [
    ...tags.map((tag) => ({ tag, rows: rows.filter((row) => row.tags.includes(tag)) })),
    { tag: null, rows: rows.filter((row) => row.tags.length === 0) },
  ];
  return groups.flatMap(({ rows: tagged, tag }): BoardItem[] =>
    tagged.length === 0
      ? []
      : [
          { kind: "tag", key: `tag ${tag ?? ""}`, tag, rows: tagged },
          ...tagged.map((row): BoardItem => ({ kind: "row", key: `${row.log} of ${tag ?? ""}`, row })),
        ],
  );
}
