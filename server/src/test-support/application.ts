import { randomUUID } from "node:crypto";
import type { Express } from "express";
import type { Knex } from "knex";
import { pino } from "pino";
import { apiRoutes, createApp } from "../app.ts";
import { connect } from "../database/connect.ts";
import { openApi } from "../http/openapi.ts";
import { migrate } from "../migrations/index.ts";
import type { OpenApiDocument } from "./held-to-openapi.ts";
import { HeldToOpenApi } from "./held-to-openapi.ts";

/**
 * A database of its own in the cluster of `TEST_DATABASE_URL`, and the application on it, held against its OpenAPI
 * document.
 */
export interface TestApplication {
  readonly app: Express;
  readonly held: HeldToOpenApi;
  readonly db: Knex;
  readonly close: () => Promise<void>;
}

/** Makes them; `npm test` starts the cluster. */
export async function testApplication(): Promise<TestApplication> {
  const cluster = process.env["TEST_DATABASE_URL"];
  if (!cluster) throw new Error("TEST_DATABASE_URL is not set: run these tests through npm test");
  const name = `test_${randomUUID().replaceAll("-", "")}`;
  const admin = connect(cluster);
  await admin.raw(`create database ${name}`);
  const url = new URL(cluster);
  url.pathname = `/${name}`;
  const db = connect(url.href);
  await migrate(db);
  const inner = createApp({ db, logger: pino({ level: "silent" }), webFolder: null, hosts: ["127.0.0.1"] });
  const close = async (): Promise<void> => {
    await db.destroy();
    await admin.raw(`drop database ${name} with (force)`);
    await admin.destroy();
  };
  // As it goes over the network.
  const document = JSON.parse(JSON.stringify(openApi(apiRoutes(db)))) as OpenApiDocument;
  const held = new HeldToOpenApi(inner, document);
  return { app: held.app, held, db, close };
}
