import { once } from "node:events";
import type { Server } from "node:http";
import type { Express } from "express";
import type { Knex } from "knex";
import { pino } from "pino";
import { afterAll, beforeAll, expect } from "vitest";
import { apiRoutes, createApp } from "../app.ts";
import { connect } from "../database/connect.ts";
import { Desk } from "../desk/desk.ts";
import { Jobs } from "../jobs/jobs.ts";
import { servicesOf } from "../services/services.ts";
import type { Services } from "../services/services.ts";
import { openApi } from "../http/openapi.ts";
import { migrate } from "../migrations/index.ts";
import type { OpenApiDocument } from "./held-to-openapi.ts";
import { HeldToOpenApi } from "./held-to-openapi.ts";
import { ownDatabase } from "./own-database.ts";

/**
 * A database of its own in the cluster of `TEST_DATABASE_URL`, and the application on it, held against its OpenAPI
 * document.
 */
export interface TestApplication {
  readonly app: Express;
  /** The same, listening: what is asked of `app` itself has to make a server for each request. */
  readonly server: Server;
  readonly held: HeldToOpenApi;
  readonly db: Knex;
  readonly desk: Desk;
  readonly jobs: Jobs;
  readonly url: string;
  readonly services: Services;
  readonly close: () => Promise<void>;
}

/**
 * Makes one for the tests of a file and ends it after them; whatever its document did not say is a failure then.
 * @param works whether it takes jobs; else they stay in the queue to be looked at
 */
export function withTestApplication(ready: (test: TestApplication) => void, works = true): void {
  let test: TestApplication;
  beforeAll(async () => {
    test = await testApplication(works);
    ready(test);
  });
  afterAll(async () => {
    const { mismatches } = test.held;
    await test.close();
    expect(mismatches).toEqual([]);
  });
}

/** Makes them; `npm test` starts the cluster. */
async function testApplication(works: boolean): Promise<TestApplication> {
  const database = await ownDatabase();
  const { url } = database;
  await migrate(url);
  const db = connect(url);
  const logger = pino({ level: process.env["KEEN_PEBBLE_LOG"] ?? "silent" });
  const desk = new Desk(url, logger);
  const jobs = new Jobs({ databaseUrl: url, db, desk, logger, works });
  await jobs.start();
  const services = servicesOf({
    db,
    desk,
    jobs,
    logger,
    logsOfJob: 2,
    keepDays: 90,
    ...(works ? {} : { patience: 50 }),
  });
  const inner = createApp({ db, desk, services, logger, webFolder: null, hosts: ["127.0.0.1"] });
  const close = async (): Promise<void> => {
    server.close();
    server.closeAllConnections();
    await services.afterSave.stop();
    await jobs.stop();
    await desk.stop();
    await db.destroy();
    await database.drop();
  };
  // As it goes over the network.
  const document = JSON.parse(JSON.stringify(openApi(apiRoutes({ db, desk, services, logger })))) as OpenApiDocument;
  const held = new HeldToOpenApi(inner, document);
  const server = held.app.listen(0, "127.0.0.1");
  await once(server, "listening");
  return { app: held.app, server, held, db, desk, jobs, url, services, close };
}
