import type { ServerEvents } from "@keen-pebble/server/api";
import { serverEventsAddress } from "./api-client.ts";

/** What is told to the pages: the server's events, and whether its word comes in. */
export type Heard =
  | { [K in keyof ServerEvents]: { readonly event: K; readonly data: ServerEvents[K] } }[keyof ServerEvents]
  | { readonly event: "open" | "lost" };

type Listener = (heard: Heard) => void;

/** What pages tell each other: what was heard, or a question whether the stream is open. */
type Told = Heard | { readonly event: "ask" };

const KINDS = ["proofs", "saved", "search", "shelf"] as const satisfies readonly (keyof ServerEvents)[];

/** A browser tries a broken stream again by itself, but not one that was refused (a stopped database): that is ours. */
const AGAIN_MS = 1500;

const NAME = "keen-pebble/events";

/**
 * The server's events. A browser has few connections to one server, so that all its pages share one stream: whoever holds
 * the lock listens, and tells the others.
 */
export class SharedEvents {
  private readonly listeners = new Set<Listener>();
  private readonly channel: BroadcastChannel | null;
  private leads = false;
  private open = false;
  private source: EventSource | null = null;

  constructor(locks: LockManager | null) {
    // Without both, each page listens for itself.
    const shares = locks !== null && typeof BroadcastChannel !== "undefined";
    this.channel = shares ? new BroadcastChannel(NAME) : null;
    this.channel?.addEventListener("message", ({ data }: MessageEvent<Told>) => this.told(data));
    if (!shares) this.lead();
    else {
      this.channel!.postMessage({ event: "ask" } satisfies Told);
      // Held for as long as the page lives, however it ends.
      void locks.request(NAME, () => {
        this.lead();
        return new Promise(() => undefined);
      });
    }
  }

  /** Calls the listener for each event; gives back what stops that. Where the stream is open already it hears so at once. */
  listen(listener: Listener): () => void {
    this.listeners.add(listener);
    if (this.open) listener({ event: "open" });
    return () => this.listeners.delete(listener);
  }

  private told(told: Told): void {
    if (told.event === "ask") {
      if (this.leads && this.open) this.channel?.postMessage({ event: "open" } satisfies Told);
    } else this.hear(told);
  }

  private lead(): void {
    this.leads = true;
    const source = new EventSource(serverEventsAddress);
    this.source = source;
    source.addEventListener("open", () => this.pass({ event: "open" }));
    source.addEventListener("error", () => {
      this.pass({ event: "lost" });
      if (source.readyState === EventSource.CLOSED && this.source === source) setTimeout(() => this.lead(), AGAIN_MS);
    });
    for (const event of KINDS)
      source.addEventListener(event, ({ data }: MessageEvent<string>) =>
        this.pass({ event, data: JSON.parse(data) as never }),
      );
  }

  private pass(heard: Heard): void {
    this.channel?.postMessage(heard);
    this.hear(heard);
  }

  private hear(heard: Heard): void {
    if (heard.event === "open" && this.open && !this.leads) return;
    this.open = heard.event === "open" || (heard.event !== "lost" && this.open);
    for (const listener of [...this.listeners]) listener(heard);
  }
}

/** The one stream of the server's events, begun once somebody listens. */
export class ServerStream {
  private shared: SharedEvents | null = null;

  /** Listens to the server's events; gives back what stops that. */
  readonly onServerEvent = (listener: Listener): (() => void) => {
    this.shared ??= new SharedEvents((navigator as { locks?: LockManager }).locks ?? null);
    return this.shared.listen(listener);
  };
}
