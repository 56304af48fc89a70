import { createStore } from "zustand/vanilla";
import { keepSetting, keptSetting } from "./project/local-settings.ts";

/** A panel beside the middle of an area. */
export interface SideSpec {
  readonly at: "left" | "right";
  readonly label: string;
  /** How wide it is drawn where nobody drew it wider, and at the least, in CSS px. */
  readonly width: number;
  readonly min: number;
  /** In a narrower page it is folded away until one opens it. */
  readonly foldsBelow: number;
}

export const SIDE_PANELS = {
  anatomy: { at: "left", label: "Frame anatomy", width: 320, min: 280, foldsBelow: 720 },
  kit: { at: "right", label: "Kit", width: 264, min: 240, foldsBelow: 960 },
  memory: { at: "right", label: "Memory table", width: 460, min: 300, foldsBelow: 900 },
  detail: { at: "right", label: "Shown log", width: 392, min: 300, foldsBelow: 900 },
  question: { at: "left", label: "Question and answer", width: 320, min: 280, foldsBelow: 720 },
  way: { at: "right", label: "Way and checks", width: 336, min: 280, foldsBelow: 960 },
} as const satisfies Readonly<Record<string, SideSpec>>;
export type SideName = keyof typeof SIDE_PANELS;

/** What somebody made of a panel; null: nothing yet. */
interface SideState {
  readonly width: number | null;
  readonly folded: boolean | null;
}
type SidesState = Readonly<Record<SideName, SideState>>;

/** A panel as it is drawn now. */
export interface ShownSide {
  readonly width: number;
  readonly folded: boolean;
}

const KEPT = "sides";
/** A panel takes at most this part of the page. */
const MOST_OF_PAGE = 0.5;
/** How far one arrow key moves the edge of a panel, in CSS px. */
export const SIDE_STEP = 16;

/** Which panels are folded away and how wide the others are; kept by this browser. */
export class Sides {
  readonly store = createStore<SidesState>(() => kept());

  /** How a panel is drawn in a page of that width. */
  readonly shown = (name: SideName, pageWidth: number): ShownSide => {
    const { width, folded } = this.store.getState()[name];
    const spec = SIDE_PANELS[name];
    const most = Math.max(spec.min, Math.floor(pageWidth * MOST_OF_PAGE));
    return {
      width: Math.min(Math.max(width ?? spec.width, spec.min), most),
      folded: folded ?? pageWidth < spec.foldsBelow,
    };
  };

  /** Draws its edge somewhere else: narrower than half of the least it folds away. */
  readonly drawTo = (name: SideName, width: number): void => {
    const { min } = SIDE_PANELS[name];
    if (width < min / 2) this.change(name, { folded: true });
    else this.change(name, { width: Math.max(min, Math.round(width)), folded: false });
  };

  /** Folds it away, or opens it again as wide as it was. */
  readonly toggle = (name: SideName, pageWidth: number): void =>
    this.change(name, { folded: !this.shown(name, pageWidth).folded });

  /** As wide as at first. */
  readonly reset = (name: SideName): void => this.change(name, { width: null, folded: false });

  private change(name: SideName, to: Partial<SideState>): void {
    const state = this.store.getState();
    const next = { ...state, [name]: { ...state[name], ...to } };
    this.store.setState(next);
    keepSetting(KEPT, JSON.stringify(next));
  }
}

function kept(): SidesState {
  const read = readJson(keptSetting(KEPT));
  return Object.fromEntries(
    (Object.keys(SIDE_PANELS) as SideName[]).map((name) => {
      const { width, folded } = (read?.[name] ?? {}) as Partial<Record<keyof SideState, unknown>>;
      return [
        name,
        {
          width: typeof width === "number" && Number.isFinite(width) ? width : null,
          folded: typeof folded === "boolean" ? folded : null,
        },
      ];
    }),
  ) as unknown as SidesState;
}

function readJson(text: string | null): Partial<Record<SideName, unknown>> | null {
  try {
    return JSON.parse(text ?? "null") as Partial<Record<SideName, unknown>> | null;
  } catch {
    return null;
  }
}
