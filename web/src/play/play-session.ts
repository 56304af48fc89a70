import type { Pointer } from "@keen-pebble/core/check";
import type { Remembered } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { CoreError } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import type { SheetImages } from "../field/tile-art.ts";
import { OfflineError, ProblemError } from "../session/project/server-answer.ts";
import { MOST_CATCH_UP } from "../session/walk/key-buttons.ts";
import { Controls } from "./controls.ts";
import { Game } from "./game.ts";
import { readGame, readSheets, sendPlay } from "./play-client.ts";

/** How a playtest stands. */
export interface PlayState {
  /** `telling`: whoever played says what they think of it, and the game stands still. */
  readonly phase: "loading" | "closed" | "playing" | "telling" | "sending" | "sent";
  readonly world: World | null;
  /** Changes with each new play. */
  readonly game: Game | null;
  readonly remembered: Remembered | null;
  readonly isOver: boolean;
  readonly images: SheetImages;
  /** Why it cannot be played, or why a play was not taken. */
  readonly fault: string | null;
}

/** A playtest in this tab: the world of the link is played, and what was played is sent. */
export class PlaySession {
  readonly store = createStore<PlayState>(() => ({
    phase: "loading",
    world: null,
    game: null,
    remembered: null,
    isOver: false,
    images: new Map(),
    fault: null,
  }));
  readonly controls = new Controls(() => this.store.getState().phase === "playing");
  /** Where the pointer is, in px of the walker's room. */
  pointer: Pointer | null = null;
  /** Draws what is there after frames were stepped. */
  draw: (() => void) | null = null;
  private revision = 0;
  private batch = "";
  private asked = 0;
  private last = 0;
  private rest = 0;

  /** Loads the world and plays it. */
  readonly start = async (): Promise<void> => {
    try {
      const { revision, world } = await readGame();
      this.revision = revision;
      this.store.setState({ world, images: await readSheets(world) });
      this.begin();
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError || error instanceof CoreError)) throw error;
      const isGone = error instanceof ProblemError && error.problem.status === 404;
      this.store.setState({
        phase: "closed",
        fault: isGone ? "This link is switched off, or never was one." : `It cannot be played now: ${error.message}.`,
      });
    }
  };

  /** Plays from the start again; what was played so far is gone. */
  readonly begin = (): void => {
    const { world } = this.store.getState();
    if (world === null) return;
    const game = new Game(world);
    this.batch = newBatch();
    this.controls.letGo();
    this.store.setState({ phase: "playing", game, remembered: game.remembered, isOver: false, fault: null });
    this.go();
  };

  /** Stands still, so that one can say what one thinks. */
  readonly tell = (): void => {
    const { game, phase } = this.store.getState();
    if (game === null || phase !== "playing") return;
    // A play has one frame at least, also where somebody speaks before the first one was shown.
    if (game.frame === 0) game.step(this.controls.held(), this.pointer);
    this.controls.letGo();
    this.store.setState({ phase: "telling", fault: null });
  };

  /** Plays on where it stood still. */
  readonly goOn = (): void => {
    const { isOver, phase } = this.store.getState();
    if (phase !== "telling" || isOver) return;
    this.store.setState({ phase: "playing", fault: null });
    this.go();
  };

  /** Sends what was played; what was typed stays where that fails. */
  readonly send = async (name: string, opinion: string): Promise<void> => {
    const { game, phase } = this.store.getState();
    if (game === null || phase !== "telling") return;
    this.store.setState({ phase: "sending", fault: null });
    try {
      await sendPlay({ batch: this.batch, revision: this.revision, ...game.played(), name: name.trim(), opinion });
      this.store.setState({ phase: "sent" });
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.store.setState({ phase: "telling", fault: `It was not sent: ${error.message}.` });
    }
  };

  private go(): void {
    cancelAnimationFrame(this.asked);
    this.last = performance.now();
    this.rest = 0;
    this.asked = requestAnimationFrame(this.tick);
  }

  private readonly tick = (now: number): void => {
    const { game, isOver, phase } = this.store.getState();
    if (game === null || phase !== "playing") return;
    this.rest = Math.min(this.rest + ((now - this.last) / 1000) * game.world.frameRate, MOST_CATCH_UP);
    this.last = now;
    for (; this.rest >= 1 && !game.isOver; this.rest--) game.step(this.controls.held(), this.pointer);
    this.draw?.();
    const { remembered } = game;
    if (remembered !== this.store.getState().remembered) this.store.setState({ remembered });
    if (game.isOver && !isOver) this.store.setState({ phase: "telling", isOver: true });
    else this.asked = requestAnimationFrame(this.tick);
  };
}

/** A random UUID; browsers make one themselves only on addresses that they call secure. */
function newBatch(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join("-");
}
