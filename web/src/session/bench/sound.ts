import type { BenchStore } from "./bench-store.ts";
import type { TraceRows } from "@keen-pebble/core/simulate";
import type { EventName } from "@keen-pebble/core/world";
import { EVENT_NAMES } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import { keepSetting, keptSetting } from "../project/local-settings.ts";

const KEPT_AS = "keen-pebble-sound";

/** A tone that glides from one pitch to another while it fades; pitches in Hz, length in s. */
interface Tone {
  readonly shape: OscillatorType;
  readonly from: number;
  readonly to: number;
  readonly length: number;
  readonly loud: number;
}

/** How each event sounds: a dull knock, a bright rise, two falls, a low buzz. */
const TONES: Readonly<Partial<Record<EventName, Tone>>> = {
  bump: { shape: "triangle", from: 150, to: 60, length: 0.12, loud: 0.25 },
  take: { shape: "sine", from: 620, to: 1240, length: 0.16, loud: 0.2 },
  open: { shape: "sine", from: 330, to: 520, length: 0.26, loud: 0.2 },
  refused: { shape: "square", from: 190, to: 150, length: 0.14, loud: 0.07 },
  hurt: { shape: "sawtooth", from: 320, to: 70, length: 0.32, loud: 0.12 },
};

/** The kinds of events in these frames, each once: events are in the order of their frames, the last ones asked for most. */
export function eventsWithin(rows: Pick<TraceRows, "events">, from: number, to: number): ReadonlySet<EventName> {
  const names = new Set<EventName>();
  for (let i = rows.events.length - 3; i >= 0 && rows.events[i]! >= from; i -= 3)
    if (rows.events[i]! <= to) names.add(EVENT_NAMES[rows.events[i + 1]!]!);
  return names;
}

/** Bumps, doors and hazards as sounds, while a run plays. */
export class Sounds {
  /** Whether events are heard: off until asked for, and kept in this browser. */
  readonly store = createStore<{ readonly on: boolean }>(() => ({ on: keptSetting(KEPT_AS) === "on" }));
  private audio: AudioContext | null = null;

  constructor(private readonly benchStore: BenchStore) {}

  /** Turns sound on or off. */
  readonly toggleSound = (): void => {
    const on = !this.store.getState().on;
    keepSetting(KEPT_AS, on ? "on" : "off");
    this.store.setState({ on });
    if (on) this.sound("bump");
  };

  /** Sounds the events of the frames that are played or walked. Gives back what stops it. */
  readonly startSound = (): (() => void) => {
    let heard = this.benchStore.getState().frame;
    return this.benchStore.subscribe(({ frame, playing, walk, run }) => {
      const rows = walk?.rows ?? run?.rows ?? null;
      const live = playing || walk?.phase === "walking";
      if (rows !== null && live && frame > heard && this.store.getState().on)
        for (const name of eventsWithin(rows, heard + 1, frame)) this.sound(name);
      heard = frame;
    });
  };

  private readonly sound = (name: EventName): void => {
    const tone = TONES[name];
    if (tone === undefined) return;
    this.audio ??= new AudioContext();
    const now = this.audio.currentTime;
    const made = new OscillatorNode(this.audio, { type: tone.shape, frequency: tone.from });
    const loud = new GainNode(this.audio, { gain: tone.loud });
    made.frequency.exponentialRampToValueAtTime(tone.to, now + tone.length);
    loud.gain.exponentialRampToValueAtTime(0.001, now + tone.length);
    made.connect(loud).connect(this.audio.destination);
    made.start(now);
    made.stop(now + tone.length + 0.01);
  };
}
