import { session } from "../../page-session.ts";
import type { Verdict, Proof } from "@keen-pebble/core/check";
import { useVirtualizer } from "@tanstack/react-virtual";
import { memo, useEffect, useRef } from "react";
import type { ShownHistory } from "../../session/proofs/proofs.ts";
import { Pebble, PebbleShape } from "../../look/pebble.tsx";
import type { PebbleKind } from "../../look/pebble.tsx";
import type { BoardRow } from "../../session/proofs/board.ts";
import type { BoardItem, Sort } from "../../session/proofs/board-order.ts";
import { isFailing } from "../../session/proofs/board.ts";
import { plural } from "../../look/plural.ts";
import { useBench, useBoard, useProofs } from "../../use-session.ts";
import { pathText } from "./path-text.ts";

const ROW = 40;
const LINE = 200;
/** The shortest log still has a line of this share of the longest one's, so that its pebbles lie side by side. */
const SHORTEST = 0.4;

interface Props {
  readonly items: readonly BoardItem[];
  /** Frames of the longest log, whose line is the whole width. */
  readonly longest: number;
  readonly onOpen: () => void;
}

/** Logs as rows, their checks as pebbles along a line, and what the last runs said. */
export function Board({ items, longest, onOpen }: Props) {
  const shown = useBench((state) => state.log);
  const history = useProofs((state) => state.history);
  const compared = useProofs((state) => state.compared?.revision ?? null);
  const box = useRef<HTMLDivElement>(null);
  const list = useVirtualizer({
    count: items.length,
    getItemKey: (at) => items[at]!.key,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const chosen = useBoard((state) => state.chosen);
  const at = items.findIndex((item) => item.kind === "row" && item.row.log === shown);
  useEffect(() => {
    if (at >= 0) list.scrollToIndex(at, { align: "auto" });
    // Only where another row is shown: the board is scrolled by hand too.
  }, [at]);
  return (
    <div className="board" role="table" aria-label="Logs" aria-rowcount={items.length + 1}>
      <div className="board-row board-head" role="row">
        <ColumnHead sort="holds" name="Holds" />
        <ColumnHead sort="title" name="Log" />
        <ColumnHead sort="rules" name="Rules" />
        <ColumnHead sort="frames" name="Frames" isNumber />
        <ColumnHead sort="path" name={compared === null ? "Path" : `Path since ${compared}`} />
        <ColumnHead sort="checks" name="Checks along the log" />
        <span role="columnheader" className="number">
          {history.length > 0 ? `Last ${history.length} ${history.length === 1 ? "run" : "runs"}` : "Runs"}
        </span>
      </div>
      <div ref={box} className="board-rows" role="rowgroup">
        <div style={{ height: list.getTotalSize(), position: "relative" }}>
          {list.getVirtualItems().map((item) => {
            const shownItem = items[item.index]!;
            if (shownItem.kind === "tag")
              return (
                <div key={item.key} className="board-at" style={{ top: item.start }}>
                  <TagHead tag={shownItem.tag} rows={shownItem.rows} />
                </div>
              );
            const { row } = shownItem;
            return (
              <div key={item.key} className="board-at" style={{ top: item.start }}>
                <Row
                  row={row}
                  on={row.log === shown}
                  chosen={chosen.has(row.log)}
                  longest={longest}
                  history={history}
                  compared={compared}
                  onOpen={onOpen}
                />
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** The head of a column: a click sorts by it, the next one the other way round. */
function ColumnHead({
  sort,
  name,
  isNumber = false,
}: {
  readonly sort: Sort;
  readonly name: string;
  readonly isNumber?: boolean;
}) {
  const by = useBoard((state) => state.sort);
  const descending = useBoard((state) => state.descending);
  const isSorted = by === sort;
  return (
    <span
      role="columnheader"
      aria-sort={isSorted ? (descending ? "descending" : "ascending") : "none"}
      className={isNumber ? "number" : undefined}
    >
      <button
        type="button"
        className="column-head"
        title={`Sort by ${name}`}
        onClick={() => session.board.sortBy(sort)}
      >
        {sort === "holds" ? <span className="visually-hidden">{name}</span> : name}
        {isSorted && (sort !== "holds" || descending) && <span aria-hidden="true">{descending ? "↓" : "↑"}</span>}
        {sort === "holds" && !(isSorted && descending) && <span aria-hidden="true">•</span>}
      </button>
    </span>
  );
}

/** The logs with a tag, above them. */
function TagHead({ tag, rows }: { readonly tag: string | null; readonly rows: readonly BoardRow[] }) {
  const failing = rows.filter(isFailing).length;
  return (
    <div className="board-tag row-line" role="row">
      <span role="cell">
        <strong>{tag ?? "No tag"}</strong>{" "}
        <span className="quiet">
          {plural(rows.length, "log")}
          {failing > 0 && `, ${failing} failing`}
        </span>
      </span>
    </div>
  );
}

interface RowProps {
  readonly row: BoardRow;
  readonly on: boolean;
  readonly chosen: boolean;
  readonly longest: number;
  readonly history: readonly ShownHistory[];
  readonly compared: number | null;
  readonly onOpen: () => void;
}

const Row = memo(function Row({ row, on, chosen, longest, history, compared, onOpen }: RowProps) {
  const { log, title, rules, tags, proof } = row;
  const failing = isFailing(row);
  const path = pathText(row);
  return (
    <div
      className={`board-row${on ? " on" : ""}${chosen ? " chosen" : ""}${failing ? " failing-row" : ""}`}
      role="row"
      aria-selected={on || chosen}
      data-log={log}
      onClick={(event) => {
        if (event.ctrlKey || event.metaKey) session.board.alsoChoose(log);
        else if (event.shiftKey) session.board.chooseTo(log);
        else session.board.chooseRow(log);
      }}
      onDoubleClick={onOpen}
    >
      <Holds proof={proof} failing={failing} />
      <span role="rowheader" className="board-name">
        <button
          type="button"
          data-row
          onFocus={(event) => event.currentTarget.matches(":focus-visible") && !on && session.board.chooseRow(log)}
        >
          {title}
        </button>
        <span className="mono quiet">
          {log}.inputs{tags.length > 0 && ` · ${tags.join(", ")}`}
        </span>
      </span>
      <span role="cell" className="quiet board-rules">
        {rules}
      </span>
      <span role="cell" className="number">
        {proof?.frames ?? ""}
      </span>
      <span role="cell">{path !== null && <span className={`path-tag ${path.kind}`}>{path.text}</span>}</span>
      <span role="cell">
        {proof !== null && <CheckLine checks={proof.checks} frames={proof.frames ?? 0} longest={longest} />}
      </span>
      <History history={history} log={log} compared={compared} />
    </div>
  );
});

/** Whether the log holds, as a pebble. */
function Holds({ proof, failing }: { readonly proof: Proof | null; readonly failing: boolean }) {
  return (
    <span role="cell">
      {proof === null ? (
        <span className="quiet">·</span>
      ) : (
        <Pebble
          kind={proof.refused !== null ? "unreached" : failing ? "fail" : "pass"}
          radius={6}
          label={proof.refused !== null ? "cannot be run" : failing ? "does not hold" : "holds"}
        />
      )}
    </span>
  );
}

/** What the last runs on the server said of the log; each can be compared with. */
function History({
  history,
  log,
  compared,
}: {
  readonly history: readonly ShownHistory[];
  readonly log: string;
  readonly compared: number | null;
}) {
  return (
    <span role="cell" className="board-history">
      {history.map(({ revision, summary, logs }, i) => {
        const said = logs.get(log);
        return (
          <button
            key={revision}
            type="button"
            tabIndex={-1}
            className={revision === compared ? "compared" : ""}
            title={`Revision ${revision}: ${said ?? "not there"}. ${summary}. Compare paths with it`}
            aria-label={`Revision ${revision}: ${said ?? "not there"}`}
            onClick={(event) => {
              event.stopPropagation();
              void session.proofs.compareWithRevision(revision);
            }}
          >
            {said === undefined ? (
              <span className="quiet">·</span>
            ) : (
              <Pebble
                kind={said === "holds" ? "pass" : said === "breaks" ? "fail" : "unreached"}
                radius={i === history.length - 1 ? 5 : 3.5}
                label={null}
              />
            )}
          </button>
        );
      })}
    </span>
  );
}

/** A log's checks as pebbles where they are decided; ones that come close are laid beside each other. */
function CheckLine({
  checks,
  frames,
  longest,
}: {
  readonly checks: readonly Verdict[];
  readonly frames: number;
  readonly longest: number;
}) {
  const width = LINE * (SHORTEST + (1 - SHORTEST) * Math.min(1, longest === 0 ? 1 : frames / longest));
  const step = Math.min(11, (width - 12) / Math.max(1, checks.length - 1));
  // From the end backwards: the last one lies at the end, the others never on top of it.
  const order = checks.map((_, i) => i).sort((a, b) => checks[a]!.frame - checks[b]!.frame || a - b);
  const places = new Array<number>(checks.length).fill(0);
  let limit = width - 6;
  for (const i of [...order].reverse()) {
    places[i] = Math.min(limit, 8 + (width - 14) * (frames === 0 ? 0 : checks[i]!.frame / frames));
    limit = places[i] - step;
  }
  const shift = Math.max(0, 6 - Math.min(...places));
  return (
    <svg className="check-line" width={LINE + 4} height={24} aria-label={checksText(checks)} role="img">
      <path d={`M4 12H${width}M${width} 8v8`} />
      {checks.map(({ verdict }, i) => (
        <g
          key={i}
          className={`pebble-${verdict satisfies PebbleKind}`}
          transform={`translate(${places[i]! + shift} 12)`}
        >
          <PebbleShape kind={verdict} radius={5} />
        </g>
      ))}
    </svg>
  );
}

function checksText(checks: readonly Verdict[]): string {
  const missed = checks.filter(({ verdict }) => verdict !== "pass");
  return missed.length === 0
    ? `${checks.length} checks pass`
    : `${missed.length} of ${checks.length} checks do not pass: ${missed.map(({ check }) => check).join(", ")}`;
}
