import type { Server } from "node:http";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import os from "node:os";
import type { Express } from "express";
import type { Door } from "../services/playtests.ts";

/** Whoever takes longer to ask is not listened to. */
const HEADERS_MS = 5000;
const REQUEST_MS = 20_000;
const MOST_CONNECTIONS = 100;

/** The port at which playtests are served: it listens while there is a link that is on, and only then. */
export class PlayDoor implements Door {
  private server: Server | null = null;
  private last: Promise<string | null> = Promise.resolve(null);

  constructor(
    private readonly app: Express,
    private readonly host: string,
    private readonly port: number,
  ) {}

  readonly follow = (links: number): Promise<string | null> => {
    // One after the other: who asks while it begins to listen waits for that.
    this.last = this.last.then(async () => {
      if (links === 0) await this.close();
      return links === 0 || this.server !== null ? null : this.listen();
    });
    return this.last;
  };

  readonly address = (token: string): string | null => {
    if (this.server === null) return null;
    const { port } = this.server.address() as AddressInfo;
    return `http://${shownHost(this.host)}:${port}/play/${token}`;
  };

  /** Does not listen any more. */
  async close(): Promise<void> {
    const { server } = this;
    this.server = null;
    if (server === null) return;
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
  }

  private async listen(): Promise<string | null> {
    const server = createServer({ headersTimeout: HEADERS_MS, requestTimeout: REQUEST_MS }, this.app);
    server.maxConnections = MOST_CONNECTIONS;
    const fault = await new Promise<NodeJS.ErrnoException | null>((resolve) => {
      server.once("error", resolve);
      server.listen(this.port, this.host, () => resolve(null));
    });
    if (fault !== null)
      return fault.code === "EADDRINUSE"
        ? `port ${this.port} is taken by another program; name another with KEEN_PEBBLE_PLAY_PORT`
        : fault.message;
    this.server = server;
    return null;
  }
}

/** What others call this machine, where it listens for all of them. */
function shownHost(host: string): string {
  if (host !== "0.0.0.0" && host !== "::") return host.includes(":") ? `[${host}]` : host;
  const outside = Object.values(os.networkInterfaces())
    .flatMap((each) => each ?? [])
    .find(({ family, internal }) => family === "IPv4" && !internal);
  return outside?.address ?? "127.0.0.1";
}
