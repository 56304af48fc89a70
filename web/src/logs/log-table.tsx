import { session } from "../page-session.ts";
import type { KeyRun, UntilChoice } from "@keen-pebble/core/check";
import { MOST_LINE_FRAMES, asFrames, keyRuns, conditionText, withLine, withLineAfter } from "@keen-pebble/core/check";
import { keysFromText, keysText } from "@keen-pebble/core/world";
import { useVirtualizer } from "@tanstack/react-virtual";
import { Fragment, useEffect, useMemo, useRef, useState } from "react";
import type { ReactNode } from "react";
import { FloatingMenu } from "../look/floating-menu.tsx";
import { useBench } from "../use-session.ts";
import Form from "react-bootstrap/Form";

const ROW = 30;

/** The shown log's runs of keys: how long, which, until what; the run of the shown frame is marked. */
export function LogTable() {
  const parsed = useBench((state) => state.parsed);
  const lineEnds = useBench((state) => state.run?.lineEnds ?? null);
  const frame = useBench((state) => state.frame);
  const box = useRef<HTMLDivElement>(null);
  const runs = useMemo(() => (parsed === null ? [] : keyRuns(parsed, lineEnds ?? [])), [parsed, lineEnds]);
  const rows = useVirtualizer({
    count: runs.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 6,
  });
  const shown = runs.findIndex(({ from, to }) => from !== null && to !== null && frame > from && frame <= to);
  useEffect(() => {
    if (shown >= 0) rows.scrollToIndex(shown, { align: "auto" });
    // Only where another run is shown: the table itself is scrolled by hand too.
  }, [shown]);
  if (parsed === null) return null;
  return (
    <div className="log-table" role="table" aria-label="Runs of keys" aria-rowcount={runs.length + 1}>
      <div className="log-row log-table-head" role="row">
        <span role="columnheader">To frame</span>
        <span role="columnheader">For</span>
        <span role="columnheader">Keys</span>
        <span role="columnheader">Until</span>
      </div>
      <div ref={box} className="log-rows" role="rowgroup">
        <div style={{ height: rows.getTotalSize(), position: "relative" }}>
          {rows.getVirtualItems().map((item) => (
            <div key={item.key} className="log-at" style={{ top: item.start }}>
              <Row run={runs[item.index]!} shown={item.index === shown} />
            </div>
          ))}
        </div>
      </div>
      <p className="quiet log-hint">
        Keys out of <b className="mono">LRUDAB</b>, or <b className="mono">.</b> for none.
      </p>
    </div>
  );
}

function Row({ run, shown }: { readonly run: KeyRun; readonly shown: boolean }) {
  const { at, line, from, to } = run;
  return (
    <div className={`log-row${shown ? " on" : ""}`} role="row">
      <button
        type="button"
        role="cell"
        className="log-frames mono"
        disabled={to === null}
        title={from === null || to === null ? "The run ended before" : `Frames ${from + 1} to ${to}: show the last one`}
        onClick={() => {
          session.playing.pause();
          session.playing.showFrame(to!);
        }}
      >
        {to ?? "none"}
      </button>
      <Cell
        label="Frames"
        value={String(line.count)}
        faultOf={(text) =>
          /^\d{1,7}$/.test(text) && Number(text) >= 1 && Number(text) <= MOST_LINE_FRAMES
            ? null
            : `1 to ${MOST_LINE_FRAMES} frames`
        }
        onValue={(text) =>
          session.logEdits.changeShownLog((log) => withLine(log, at, { ...line, count: Number(text) }))
        }
      />
      <Cell
        label="Keys"
        value={keysText(line.keys)}
        faultOf={(text) => (keysFromText(ordered(text)) < 0 ? "letters out of LRUDAB, or ." : null)}
        onValue={(text) =>
          session.logEdits.changeShownLog((log) => withLine(log, at, { ...line, keys: keysFromText(ordered(text)) }))
        }
      />
      <span role="cell" className="log-until mono" title={line.until === null ? undefined : conditionText(line.until)}>
        {line.until === null ? "" : conditionText(line.until)}
      </span>
      <RowMenu run={run} />
    </div>
  );
}

/** Letters in the order in which a log writes them, in whatever order and case they were typed. */
function ordered(text: string): string {
  const letters = text.toUpperCase().replace(/\s/g, "");
  return letters === ""
    ? "."
    : [..."LRUDAB"].filter((letter) => letters.includes(letter)).join("") + letters.replace(/[LRUDAB]/g, "");
}

function Cell({
  label,
  value,
  faultOf,
  onValue,
}: {
  readonly label: string;
  readonly value: string;
  readonly faultOf: (text: string) => string | null;
  readonly onValue: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const fault = typed === null ? null : faultOf(typed);
  return (
    <span role="cell">
      <Form.Control
        className="mono"
        aria-label={label}
        aria-invalid={fault !== null}
        title={fault ?? undefined}
        value={typed ?? value}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => {
          if (typed !== null && fault === null && typed !== value) onValue(typed);
          setTyped(null);
        }}
        onKeyDown={(event) => {
          if (event.key === "Escape") setTyped(null);
          else if (event.key === "Enter") event.currentTarget.blur();
        }}
      />
    </span>
  );
}

function RowMenu({ run }: { readonly run: KeyRun }) {
  const { at, line, from, to } = run;
  const [choices, setChoices] = useState<readonly UntilChoice[] | null>(null);
  const lasted = from !== null && to !== null ? to - from : null;
  const item = (name: ReactNode, act: () => void) => (
    <button type="button" className="dropdown-item" onClick={act}>
      {name}
    </button>
  );
  return (
    <span role="cell">
      <FloatingMenu
        label={`More about frames ${from === null || to === null ? "not reached" : `${from + 1} to ${to}`}`}
        onOpen={() => line.until === null && void session.untilLines.untilChoicesOf(at).then(setChoices)}
      >
        {line.until === null ? (
          <>
            <h3 className="dropdown-header">Hold until, so that it survives another speed</h3>
            {choices === null && <p className="dropdown-item-text quiet">looking</p>}
            {choices?.length === 0 && (
              <p className="dropdown-item-text quiet">
                Nothing comes about in this stretch that it could be held until.
              </p>
            )}
            {choices?.map((choice) => (
              <Fragment key={choice.text}>
                {item(
                  <>
                    <span className="mono">{choice.text}</span>{" "}
                    <span className={choice.holds ? "quiet" : "attention"}>
                      {choice.same
                        ? "same walk"
                        : choice.holds
                          ? `${choice.sooner} frames sooner, checks hold`
                          : `${choice.sooner} frames sooner, breaks a check`}
                    </span>
                  </>,
                  () => session.logEdits.changeShownLog(() => choice.log),
                )}
              </Fragment>
            ))}
          </>
        ) : (
          item(`Back to ${lasted ?? line.count} frames`, () =>
            session.logEdits.changeShownLog((log) => withLine(log, at, asFrames(run))),
          )
        )}
        <hr className="dropdown-divider" />
        {item("Add 16 frames of nothing behind", () =>
          session.logEdits.changeShownLog((log) =>
            withLineAfter(log, at, { kind: "keys", count: 16, keys: 0, pointer: null, until: null }),
          ),
        )}
        {item("Delete this line", () => session.logEdits.changeShownLog((log) => withLine(log, at, null)))}
      </FloatingMenu>
    </span>
  );
}
