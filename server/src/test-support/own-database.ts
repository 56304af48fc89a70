import { randomUUID } from "node:crypto";
import { connect } from "../database/connect.ts";

/** An empty database that the application's role owns, as in an installation. */
export interface OwnDatabase {
  readonly url: string;
  readonly drop: () => Promise<void>;
}

/** Makes one in the cluster that `npm test` starts. */
export async function ownDatabase(): Promise<OwnDatabase> {
  const cluster = process.env["TEST_DATABASE_URL"];
  const owner = process.env["TEST_ADMIN_URL"];
  if (!cluster || !owner) throw new Error("TEST_DATABASE_URL is not set: run these tests through npm test");
  const name = `test_${randomUUID().replaceAll("-", "")}`;
  const admin = connect(owner);
  const url = new URL(cluster);
  await admin.raw(`create database ${name} owner ${url.username} template template0`);
  url.pathname = `/${name}`;
  return {
    url: url.href,
    drop: async () => {
      await admin.raw(`drop database ${name} with (force)`);
      await admin.destroy();
    },
  };
}
