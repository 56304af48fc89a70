import { readLog, writeLog } from "@keen-pebble/core/check";
import { writeWorld } from "@keen-pebble/core/formats";

const world = import.meta.glob("../../../../demo/trying-grounds/*.world.json", { query: "?raw", import: "default" });
const logs = import.meta.glob("../../../../demo/trying-grounds/logs/*.inputs", { query: "?raw", import: "default" });

/** The Trying grounds as files under an id and a name of their own: small rooms that show one thing each, with their logs. */
export async function tryingGrounds(id: string, name: string): Promise<File[]> {
  const { readWorld } = await import("@keen-pebble/core/reading");
  const [text] = await Promise.all(Object.values(world).map((load) => load()));
  const files = [new File([writeWorld({ ...readWorld(text!, "Trying grounds"), id, name })], `${id}.world.json`)];
  for (const [path, load] of Object.entries(logs)) {
    const file = path.slice(path.lastIndexOf("/") + 1);
    files.push(new File([writeLog({ ...readLog(await load(), file), world: id })], file));
  }
  return files;
}
