import { useId, useRef, useState } from "react";

interface Props {
  readonly label: string;
  readonly unit?: string;
  readonly value: number;
  /** How much an arrow key changes it; Shift makes it ten times that. */
  readonly step: number;
  readonly warn?: boolean;
  /** Takes a new value; `stroke` names the drag that it belongs to. False: it was refused. */
  readonly onValue: (value: number, stroke: string | null) => boolean;
  readonly onStrokeEnd: () => void;
}

/** How many px of dragging on the label make one step. */
const DRAG_PX = 8;

/** A number that is typed, stepped with the arrow keys, or dragged by its label. */
export function NumberField({ label, unit, value, step, warn, onValue, onStrokeEnd }: Props) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const drag = useRef<{ readonly x: number; readonly from: number; readonly stroke: string } | null>(null);
  const parsed = draft === null ? value : Number(draft.trim().replace(",", "."));
  const fault = draft !== null && (draft.trim() === "" || !Number.isFinite(parsed));

  const commit = (text: string): void => {
    const typed = Number(text.trim().replace(",", "."));
    if (text.trim() !== "" && Number.isFinite(typed) && typed !== value) onValue(typed, null);
    setDraft(null);
  };
  const stepBy = (steps: number, stroke: string | null): void => {
    setDraft(null);
    onValue(Number((value + steps * step).toFixed(6)), stroke);
  };

  return (
    <div className={`labelled${warn ? " warn" : ""}${fault ? " fault" : ""}`}>
      <label
        htmlFor={id}
        className="drag"
        title="Drag to change"
        onPointerDown={(event) => {
          event.preventDefault();
          event.currentTarget.setPointerCapture(event.pointerId);
          drag.current = { x: event.clientX, from: value, stroke: crypto.randomUUID() };
        }}
        onPointerMove={(event) => {
          const { current } = drag;
          if (current === null) return;
          const next = Number((current.from + Math.round((event.clientX - current.x) / DRAG_PX) * step).toFixed(6));
          if (next !== value) onValue(next, current.stroke);
        }}
        onPointerUp={() => {
          drag.current = null;
          onStrokeEnd();
        }}
      >
        {label}
      </label>
      <input
        id={id}
        inputMode="decimal"
        autoComplete="off"
        data-settled={draft === null ? "" : undefined}
        value={draft ?? String(value)}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={(event) => commit(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit(event.currentTarget.value);
          else if (event.key === "Escape") setDraft(null);
          else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            stepBy((event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? 10 : 1), null);
          }
        }}
      />
      {unit && <span className="unit">{unit}</span>}
    </div>
  );
}
