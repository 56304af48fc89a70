import { runQuietly } from "./run.mjs";
import { makeDataFolder } from "./data-folder.mjs";
import { Postgres } from "./postgres.mjs";
import { startApplication, stopApplication } from "./application.mjs";
import { freePort } from "./free-port.mjs";

/** Names the folder that `makeProvenData` made, for tests that start the application. */
const VARIABLE = "KEEN_PEBBLE_PROVEN_DATA";
const LOOK_AGAIN_MS = 50;

/**
 * Makes a data folder as a first start leaves it once the demo's proofs are through. Twenty tests start the application:
 * each begins with a copy of it, and does not prove the demo once more.
 */
export async function makeProvenData(folder) {
  makeDataFolder(folder);
  const postgres = await new Postgres(folder).start();
  try {
    const { address, child } = await startApplication({
      databaseUrl: postgres.url(),
      port: await freePort(),
      data: folder,
      log: "silent",
    });
    await allProven(address);
    await stopApplication(child);
  } finally {
    postgres.stop();
  }
  process.env[VARIABLE] = folder;
}

/** Makes a data folder: a copy of the proven one where a run of all tests made one, else an empty one. */
export function makeTestData(folder) {
  const proven = process.env[VARIABLE];
  if (proven === undefined) makeDataFolder(folder);
  else runQuietly("cp", ["-a", "--reflink=auto", proven, folder], { what: "copying the proven data" });
}

async function allProven(address) {
  const ask = async (route) => (await fetch(`${address}/api${route}`)).json();
  const { worlds } = await ask("/worlds");
  for (const { id } of worlds)
    while ((await ask(`/worlds/${id}/proofs`)).proofs.state !== "done")
      await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
}
