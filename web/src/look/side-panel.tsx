import type { CSSProperties, KeyboardEvent, PointerEvent } from "react";
import { useStore } from "zustand";
import { session } from "../page-session.ts";
import { SIDE_KEYS } from "../session/commands/sides.ts";
import type { ShownSide, SideName } from "../session/sides.ts";
import { SIDE_PANELS, SIDE_STEP } from "../session/sides.ts";
import { Icon } from "./icon.tsx";
import { pageWidth, usePageWidth } from "./page-width.ts";
import "./side-panel.css";

/** How wide what is left of a folded panel is, in CSS px. */
const FOLDED = 16;

/** How a panel beside the middle of an area is drawn now. */
export function useSide(name: SideName): ShownSide {
  useStore(session.sides.store, (state) => state[name]);
  return session.sides.shown(name, usePageWidth());
}

/** The widths of an area's panels for its grid, as `--left` and `--right`. */
export function sideColumns(left: ShownSide | null, right: ShownSide | null): CSSProperties {
  const px = (side: ShownSide | null) => `${side === null ? 0 : side.folded ? FOLDED : side.width}px`;
  return { "--left": px(left), "--right": px(right) } as CSSProperties;
}

/** The edge of a panel: dragged or moved by arrow keys it makes the panel wider, a click on its arrow or Enter folds it away or opens it. */
export function SideEdge({ name }: { readonly name: SideName }) {
  const { folded, width } = useSide(name);
  const { at, label, min } = SIDE_PANELS[name];
  const says = `${folded ? "Open" : "Fold away"}: ${label} (${SIDE_KEYS[at]}); drag to make it wider`;
  return (
    <div
      className={`side-edge at-${at}${folded ? " folded" : ""}`}
      role="separator"
      aria-orientation="vertical"
      aria-label={`Width of ${label}`}
      aria-valuenow={folded ? 0 : width}
      aria-valuemin={min}
      aria-valuemax={Math.max(width, Math.floor(pageWidth() / 2))}
      aria-valuetext={folded ? "folded away" : `${width} px`}
      tabIndex={0}
      title={says}
      onKeyDown={(event) => pressed(event, name, folded ? 0 : width)}
      onPointerDown={(event) => dragged(event, name)}
      onDoubleClick={(event) => {
        if ((event.target as Element).closest(".side-grip") === null) session.sides.reset(name);
      }}
    >
      <span className="side-grip" aria-hidden="true">
        <Icon name={(at === "left") === folded ? "forward" : "back"} />
      </span>
    </div>
  );
}

function pressed(event: KeyboardEvent<HTMLDivElement>, name: SideName, width: number): void {
  const outward = SIDE_PANELS[name].at === "left" ? 1 : -1;
  const arrow = event.key === "ArrowRight" ? 1 : event.key === "ArrowLeft" ? -1 : 0;
  if (arrow !== 0)
    session.sides.drawTo(
      name,
      Math.max(width, arrow === outward ? SIDE_PANELS[name].min : 0) + arrow * outward * SIDE_STEP,
    );
  else if (event.key === "Enter" || event.key === " ") session.sides.toggle(name, pageWidth());
  else return;
  // The page's own keys would play the log.
  event.preventDefault();
  event.stopPropagation();
}

/** How far the pointer may move in what is still a click, in CSS px. */
const CLICK = 3;

function dragged(event: PointerEvent<HTMLDivElement>, name: SideName): void {
  if (event.button !== 0) return;
  const edge = event.currentTarget;
  const area = edge.parentElement!.getBoundingClientRect();
  const from = event.clientX;
  // A click beside the arrow may be half of a double one: folded away, the panel would leave the other half to what lies there.
  const isFold =
    session.sides.shown(name, pageWidth()).folded || (event.target as Element).closest(".side-grip") !== null;
  let moved = false;
  edge.setPointerCapture(event.pointerId);
  const move = (to: globalThis.PointerEvent): void => {
    moved ||= Math.abs(to.clientX - from) > CLICK;
    if (moved)
      session.sides.drawTo(name, SIDE_PANELS[name].at === "left" ? to.clientX - area.left : area.right - to.clientX);
  };
  const end = (): void => {
    edge.removeEventListener("pointermove", move);
    if (!moved && isFold) session.sides.toggle(name, pageWidth());
  };
  edge.addEventListener("pointermove", move);
  edge.addEventListener("lostpointercapture", end, { once: true });
}
