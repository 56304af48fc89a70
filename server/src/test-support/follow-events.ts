import type { Express } from "express";
import { listening } from "./listening.ts";

export interface FollowedEvents {
  /** The next event, once it comes. */
  readonly next: () => Promise<{ readonly event: string; readonly data: unknown }>;
  readonly close: () => Promise<void>;
}

/** Follows a stream of events over the network. */
export async function followEvents(app: Express, path: string): Promise<FollowedEvents> {
  const server = await listening(app);
  const abort = new AbortController();
  const response = await fetch(`${server.address}${path}`, { signal: abort.signal });
  if (!response.ok) throw new Error(`${path}: ${response.status}`);
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let text = "";
  return {
    next: async () => {
      for (;;) {
        const end = text.indexOf("\n\n");
        if (end >= 0) {
          const lines = text.slice(0, end).split("\n");
          text = text.slice(end + 2);
          const field = (name: string): string | undefined =>
            lines
              .find((line) => line.startsWith(`${name}:`))
              ?.slice(name.length + 1)
              .trim();
          const data = field("data");
          if (data !== undefined) return { event: field("event") ?? "", data: JSON.parse(data) as unknown };
          continue;
        }
        const { value, done } = await reader.read();
        if (done) throw new Error("the stream ended");
        text += value;
      }
    },
    close: async () => {
      abort.abort();
      await reader.cancel().catch(() => undefined);
      await server.close();
    },
  };
}
