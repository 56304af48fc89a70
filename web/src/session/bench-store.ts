import type { Explanation, InputLog, TraceRows, Verdict } from "@keen-pebble/core";
import { createStore } from "zustand/vanilla";

/** The run of the selected log, as it stands after the last change. */
export interface ShownRun {
  readonly log: string;
  readonly rows: TraceRows;
  readonly verdicts: readonly Verdict[];
  readonly frames: number;
  readonly status: number;
  readonly pathHash: number;
  readonly took: number;
}

/** Live play: under way, or stopped and offered to be kept. */
export interface WalkState {
  readonly phase: "walking" | "offered";
  readonly room: number;
  readonly rows: TraceRows;
  readonly log: InputLog;
}

export const OVERLAYS = ["grid", "body", "trail", "ghost"] as const;
export type Overlay = (typeof OVERLAYS)[number];
export type Tool = "look" | "walk" | "paint";

/** What the Bench shows: a view of the project that is never saved. */
export interface BenchState {
  readonly room: string;
  readonly log: string | null;
  readonly parsed: InputLog | null;
  readonly frame: number;
  readonly playing: boolean;
  /** Frames shown a frame: 1 is the world's frame rate. */
  readonly rate: number;
  readonly tool: Tool;
  readonly tile: number;
  readonly overlays: Readonly<Record<Overlay, boolean>>;
  readonly run: ShownRun | null;
  /** Why the selected log cannot be run. */
  readonly refused: string | null;
  readonly ghost: TraceRows | null;
  readonly explanation: Explanation | null;
  readonly walk: WalkState | null;
  /** Room pixel under the pointer, or null. */
  readonly pointer: { readonly x: number; readonly y: number } | null;
  /** How many logs have a check that fails, by the last look at all of them. */
  readonly failingLogs: number;
}

export const benchStore = createStore<BenchState>(() => ({
  room: "",
  log: null,
  parsed: null,
  frame: 0,
  playing: false,
  rate: 1,
  tool: "paint",
  tile: 1,
  overlays: { grid: false, body: true, trail: true, ghost: true },
  run: null,
  refused: null,
  ghost: null,
  explanation: null,
  walk: null,
  pointer: null,
  failingLogs: 0,
}));
