import { randomUUID } from "node:crypto";
import type { Express } from "express";
import type { Knex } from "knex";
import { pino } from "pino";
import { createApp } from "../app.ts";
import { connect } from "../database/connect.ts";
import { migrate } from "../migrations/index.ts";

/** A database of its own in the cluster of `TEST_DATABASE_URL`, and the application on it. */
export interface TestApplication {
  readonly app: Express;
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
  const app = createApp({ db, logger: pino({ level: "silent" }), webFolder: null, hosts: ["127.0.0.1"] });
  const close = async (): Promise<void> => {
    await db.destroy();
    await admin.raw(`drop database ${name} with (force)`);
    await admin.destroy();
  };
  return { app, db, close };
}
