import { useId, useRef, useState } from "react";
import Form from "react-bootstrap/Form";

/** What a number may be, both ends included; `whole` ones only, or any. It comes from the tables of the file's reader. */
export interface NumberRange {
  readonly min: number;
  readonly max: number;
  readonly whole: boolean;
}

interface Props {
  readonly label: string;
  readonly range: NumberRange;
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
export function NumberField({ label, range, unit, value, step, warn, onValue, onStrokeEnd }: Props) {
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const fault =
    draft !== null && numberOf(draft, range) === null ? `${label}: ${rangeText(range)}${unit ? ` ${unit}` : ""}` : null;

  // What may not be stays in the field to be corrected.
  const commit = (text: string): void => {
    const typed = numberOf(text, range);
    if (typed === null) setDraft(text === String(value) ? null : text);
    else if (typed === value || onValue(typed, null)) setDraft(null);
  };
  // By arrows and drags one comes to the nearest number that may be.
  const goTo = (wished: number, stroke: string | null): void => {
    const rounded = range.whole ? Math.round(wished) : Number(wished.toFixed(6));
    const next = Math.min(Math.max(rounded, range.min), range.max);
    setDraft(null);
    if (next !== value) onValue(next, stroke);
  };

  return (
    <div className={`labelled${warn ? " warn" : ""}${fault !== null ? " fault" : ""}`} title={fault ?? undefined}>
      <DragLabel of={id} label={label} value={value} step={step} onDrag={goTo} onDragEnd={onStrokeEnd} />
      <Form.Control
        id={id}
        inputMode="decimal"
        autoComplete="off"
        aria-invalid={fault !== null}
        data-settled={draft === null ? "" : undefined}
        value={draft ?? String(value)}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={(event) => commit(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Enter") commit(event.currentTarget.value);
          else if (event.key === "Escape") setDraft(null);
          else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
            event.preventDefault();
            goTo(value + (event.key === "ArrowUp" ? 1 : -1) * (event.shiftKey ? 10 : 1) * step, null);
          }
        }}
      />
      {unit && <span className="unit">{unit}</span>}
      {fault !== null && (
        <span className="visually-hidden" role="status">
          {fault}
        </span>
      )}
    </div>
  );
}

/** The label, which changes the number while it is dragged. */
function DragLabel({
  of,
  label,
  value,
  step,
  onDrag,
  onDragEnd,
}: {
  readonly of: string;
  readonly label: string;
  readonly value: number;
  readonly step: number;
  readonly onDrag: (wished: number, stroke: string) => void;
  readonly onDragEnd: () => void;
}) {
  const drag = useRef<{ readonly x: number; readonly from: number; readonly stroke: string } | null>(null);
  return (
    <Form.Label
      htmlFor={of}
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
        onDrag(current.from + Math.round((event.clientX - current.x) / DRAG_PX) * step, current.stroke);
      }}
      onPointerUp={() => {
        drag.current = null;
        onDragEnd();
      }}
    >
      {label}
    </Form.Label>
  );
}

/** The number that was typed, with a comma or a point; null where it may not be. */
function numberOf(text: string, { min, max, whole }: NumberRange): number | null {
  const typed = Number(text.trim().replace(",", "."));
  if (text.trim() === "" || !Number.isFinite(typed) || typed < min || typed > max) return null;
  return whole && !Number.isInteger(typed) ? null : typed;
}

function rangeText({ min, max, whole }: NumberRange): string {
  return `${whole ? "a whole number" : "a number"} from ${min} to ${max}`;
}
