import { randomBytes } from "node:crypto";
import type { Knex } from "knex";
import type { KeptPlay, PlaytestLink } from "../api.ts";
import type { Desk } from "../desk/desk.ts";
import { EntryRow } from "../models/entry-row.ts";
import { PlaytestRow } from "../models/playtest-row.ts";
import { MOST_PLAYS, linkedWorld } from "./keep-play.ts";
import { NotFoundError } from "./service-errors.ts";
import type { Shelf } from "./shelf.ts";
import type { Worlds } from "./worlds.ts";

/** Where links are served; it listens only while there is one. */
export interface Door {
  /** Listens if there is a link, and else not any more. Says why it cannot, or null. */
  readonly follow: (links: number) => Promise<string | null>;
  /** The address of a link; null while nothing listens. */
  readonly address: (token: string) => string | null;
}

/** What a token looks like. */
export const TOKEN_PATTERN = /^[A-Za-z0-9_-]{22}$/;
const TOKEN_BYTES = 16;

/** Links at which others can play a world, off until somebody switches one on. */
export class Playtests {
  private fault: string | null = "this server was started without the page of playtests";
  private door: Door | null = null;

  constructor(
    private readonly db: Knex,
    private readonly desk: Desk,
    private readonly shelf: Shelf,
    private readonly worlds: Worlds,
  ) {}

  /** Serves links at a door from now on. */
  async openAt(door: Door): Promise<void> {
    this.door = door;
    await this.follow();
  }

  /** How the link of a world stands. */
  async link(slug: string): Promise<PlaytestLink> {
    const { id } = await this.shelf.row(slug);
    const row = await PlaytestRow.query(this.db).findById(id);
    return this.linkOf(id, row);
  }

  /** Switches the link of a world on or off; each time that it is switched on it has another address. */
  async switch(slug: string, on: boolean): Promise<PlaytestLink> {
    const { id } = await this.shelf.row(slug);
    if (on)
      await PlaytestRow.query(this.db)
        .insert({ worldId: id, token: randomBytes(TOKEN_BYTES).toString("base64url") })
        .onConflict("worldId")
        .ignore();
    else await PlaytestRow.query(this.db).deleteById(id);
    await this.follow();
    return this.linkOf(id, await PlaytestRow.query(this.db).findById(id));
  }

  /** Ensures that there is such a link. Throws `NotFoundError` where there is none. */
  async ensure(token: string): Promise<void> {
    await linkedWorld(this.db, token);
  }

  /** The world of a link as it is now, as JSON. */
  async game(token: string): Promise<Uint8Array> {
    return this.desk.ask("playtestGame", { token });
  }

  /** The picture of a sheet of the world of a link. */
  async sheet(token: string, file: string): Promise<Buffer> {
    const { slug } = await linkedWorld(this.db, token);
    const png = await this.shelf.sheet(slug, file);
    if (png === null) throw new NotFoundError("sheet", file);
    return png;
  }

  /** Keeps what somebody sent, as JSON. */
  async receive(token: string, body: Uint8Array): Promise<KeptPlay> {
    const { log, world } = await this.desk.ask("keepPlay", { token, body });
    await this.worlds.changed(world);
    return { log };
  }

  private async follow(): Promise<void> {
    if (this.door === null) return;
    this.fault = await this.door.follow(await PlaytestRow.query(this.db).resultSize());
  }

  private async linkOf(worldId: number, row: PlaytestRow | undefined): Promise<PlaytestLink> {
    const received = await EntryRow.query(this.db).where({ worldId }).whereNotNull("sender").resultSize();
    return {
      on: row !== undefined,
      address: row === undefined ? null : (this.door?.address(row.token) ?? null),
      fault: row === undefined ? null : this.fault,
      received,
      most: MOST_PLAYS,
    };
  }
}
