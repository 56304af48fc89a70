import { expose } from "comlink";
import type { Endpoint } from "comlink";
import { vi } from "vitest";

type Role = "simulation" | "proofs" | "reach" | "trials" | "which-rules";
type Heard = (event: MessageEvent) => void;

/** One end of a line between page and worker: what is said arrives later, copied as between two threads. */
class Line implements Endpoint {
  other: Line | null = null;
  private readonly listeners = new Set<Heard>();

  postMessage(message: unknown, transfer: Transferable[] = []): void {
    const data: unknown = structuredClone(message, { transfer });
    queueMicrotask(() => this.other?.hear(data));
  }

  private hear(data: unknown): void {
    for (const listener of [...this.listeners]) listener({ data } as MessageEvent);
  }

  addEventListener(_type: string, listener: EventListenerOrEventListenerObject): void {
    this.listeners.add(listener as Heard);
  }

  removeEventListener(_type: string, listener: EventListenerOrEventListenerObject): void {
    this.listeners.delete(listener as Heard);
  }
}

/** What a worker of the page does, in the page's own thread. */
export class FakeWorker extends Line {
  static all: FakeWorker[] = [];
  /** Whether each has a copy of the worker's modules to itself, as its thread has; where there is one a role they may share. */
  static ownModules = false;
  /** Holds back what is said to workers until it is let go: for the order of answers. */
  static holdsBack = false;
  private static turn: Promise<unknown> = Promise.resolve();
  private held: [unknown, Transferable[] | undefined][] = [];
  private readonly inside = new Line();

  constructor(_address: URL, { name }: { readonly name: Role }) {
    super();
    FakeWorker.all.push(this);
    void this.begin(name);
  }

  private async begin(name: Role): Promise<void> {
    const loading: Readonly<Record<Role, () => Promise<object>>> = {
      simulation: () => import("../workers/simulation.ts"),
      proofs: () => import("../workers/proofs.ts"),
      reach: () => import("../workers/reach.ts"),
      "which-rules": async () => ({ "which-rules": (await import("../workers/which-rules.ts")).whichRules }),
      trials: () => import("../workers/trials.ts"),
    };
    // One after the other: two that load at once would share what they load.
    const loaded = FakeWorker.turn.then(() => {
      if (FakeWorker.ownModules) vi.resetModules();
      return loading[name]();
    });
    FakeWorker.turn = loaded;
    const roles = (await loaded) as unknown as Readonly<Record<string, object>>;
    this.inside.other = this;
    this.other = this.inside;
    expose(roles[name], this.inside);
    if (!FakeWorker.holdsBack) this.letGo();
  }

  override postMessage(message: unknown, transfer?: Transferable[]): void {
    if (this.other === null || FakeWorker.holdsBack) this.held.push([message, transfer]);
    else super.postMessage(message, transfer);
  }

  /** Until all that the workers load is there. */
  static async loaded(): Promise<void> {
    await FakeWorker.turn;
  }

  /** How much is held back. */
  get waiting(): number {
    return this.held.length;
  }

  /** Hands over what was held back: the first `count` of it. */
  letGo(count = this.held.length): void {
    for (const [message, transfer] of this.held.splice(0, count)) super.postMessage(message, transfer);
  }

  terminate(): void {
    this.inside.other = null;
    this.other = null;
  }
}
