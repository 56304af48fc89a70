import type { PointerEvent } from "react";
import { DIRECTIONS, SPARE, USE } from "@keen-pebble/core/world";
import type { Controls } from "./controls.ts";
import { stickButtons } from "./controls.ts";

/** A stick and two buttons for fingers; shown where there are fingers. */
export function TouchPad({ controls }: { readonly controls: Controls }) {
  const push = (event: PointerEvent<HTMLDivElement>): void => {
    if (event.type === "pointerdown") event.currentTarget.setPointerCapture(event.pointerId);
    else if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    const [x, y] = [((event.clientX - left) / width) * 2 - 1, ((event.clientY - top) / height) * 2 - 1];
    controls.touched = (controls.touched & ~DIRECTIONS) | stickButtons(x, y);
  };
  const letGo = (): void => {
    controls.touched &= ~DIRECTIONS;
  };
  return (
    <div className="touch-pad" aria-hidden="true">
      <div className="stick" onPointerDown={push} onPointerMove={push} onPointerUp={letGo} onPointerCancel={letGo} />
      <span className="grow" />
      <TouchButton name="Q" button={SPARE} controls={controls} />
      <TouchButton name="E" button={USE} controls={controls} />
    </div>
  );
}

function TouchButton({
  name,
  button,
  controls,
}: {
  readonly name: string;
  readonly button: number;
  readonly controls: Controls;
}) {
  const letGo = (): void => {
    controls.touched &= ~button;
  };
  return (
    <div
      className="touch-button mono"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        controls.touched |= button;
      }}
      onPointerUp={letGo}
      onPointerCancel={letGo}
    >
      {name}
    </div>
  );
}
