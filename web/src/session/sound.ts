import type { TraceRows } from "@keen-pebble/core";
import { BUMP } from "@keen-pebble/core";
import { createStore } from "zustand/vanilla";
import { benchStore } from "./bench-store.ts";

const KEPT_AS = "keen-pebble-sound";

/** Whether bumps are heard: off until asked for, and kept in this browser. */
export const soundStore = createStore<{ readonly on: boolean }>(() => ({ on: localStorage.getItem(KEPT_AS) === "on" }));

let audio: AudioContext | null = null;

/** Turns sound on or off. */
export function toggleSound(): void {
  const on = !soundStore.getState().on;
  localStorage.setItem(KEPT_AS, on ? "on" : "off");
  soundStore.setState({ on });
  if (on) bump();
}

/** Sounds the events of the frames that are played or walked. Gives back what stops it. */
export function startSound(): () => void {
  let heard = benchStore.getState().frame;
  return benchStore.subscribe(({ frame, playing, walk, run }) => {
    const rows = walk?.rows ?? run?.rows ?? null;
    const live = playing || walk?.phase === "walking";
    if (rows !== null && live && frame > heard && soundStore.getState().on && bumpsWithin(rows, heard + 1, frame)) bump();
    heard = frame;
  });
}

/** Whether the walker bumped in one of these frames: events are in the order of their frames, the last ones asked for most. */
export function bumpsWithin(rows: Pick<TraceRows, "events">, from: number, to: number): boolean {
  for (let i = rows.events.length - 3; i >= 0; i -= 3) {
    if (rows.events[i]! < from) return false;
    if (rows.events[i]! <= to && rows.events[i + 1] === BUMP) return true;
  }
  return false;
}

/** A short dull knock: a tone that falls while it fades. */
function bump(): void {
  audio ??= new AudioContext();
  const now = audio.currentTime;
  const tone = new OscillatorNode(audio, { type: "triangle", frequency: 150 });
  const loud = new GainNode(audio, { gain: 0.25 });
  tone.frequency.exponentialRampToValueAtTime(60, now + 0.09);
  loud.gain.exponentialRampToValueAtTime(0.001, now + 0.12);
  tone.connect(loud).connect(audio.destination);
  tone.start(now);
  tone.stop(now + 0.13);
}
