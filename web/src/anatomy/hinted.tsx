import type { ReactNode } from "react";
import { useEffect, useRef, useState } from "react";
import OverlayTrigger from "react-bootstrap/OverlayTrigger";
import Tooltip from "react-bootstrap/Tooltip";
import { useStore } from "zustand";
import { session } from "../page-session.ts";

interface Props {
  /** Path of what is explained, such as `glide.speed`: the rules as a program light up where they ask for it. */
  readonly path: string;
  /** What is said of it, right of the whole anatomy. */
  readonly says: ReactNode;
  readonly children: ReactNode;
}

/** A setting that says what it does: a while after somebody points at it, until he begins to change it. */
export function Hinted({ path, says, children }: Props) {
  const shows = useHint(path);
  const point = (): void => session.takenHome.point(path);
  const leave = (): void => session.takenHome.point(null);
  return (
    <OverlayTrigger
      placement="right-start"
      trigger={[]}
      show={shows.hint}
      popperConfig={BESIDE_THE_ANATOMY}
      overlay={
        <Tooltip id={`hint-${path}`} className="setting-hint">
          {says}
        </Tooltip>
      }
    >
      <div
        className="setting"
        onPointerEnter={point}
        onPointerLeave={leave}
        onFocusCapture={point}
        onBlurCapture={leave}
        onPointerDownCapture={shows.hide}
        onKeyDownCapture={shows.hide}
      >
        {children}
      </div>
    </OverlayTrigger>
  );
}

/** What is only crossed on the way to something else says nothing, in ms. */
const HINT_DELAY = 450;

/** Whether a setting says what it does: a while after somebody points at it, until he begins to change it. */
function useHint(path: string): { readonly hint: boolean; readonly hide: () => void } {
  const pointed = useStore(session.takenHome.store, (state) => state.pointed === path);
  const [hint, setHint] = useState(false);
  const timer = useRef(0);
  useEffect(() => {
    if (!pointed) return;
    timer.current = window.setTimeout(() => setHint(true), HINT_DELAY);
    return () => {
      window.clearTimeout(timer.current);
      setHint(false);
    };
  }, [pointed]);
  const hide = (): void => {
    window.clearTimeout(timer.current);
    setHint(false);
  };
  return { hint, hide };
}

/** Right of the whole anatomy, so that it covers no other setting. */
const BESIDE_THE_ANATOMY = {
  modifiers: [
    {
      name: "offset",
      options: {
        offset: ({ reference }: { reference: { x: number; width: number } }) => {
          const edge = document.querySelector(".anatomy")?.getBoundingClientRect().right ?? 0;
          return [0, Math.max(4, edge - reference.x - reference.width - 2)];
        },
      },
    },
  ],
};
