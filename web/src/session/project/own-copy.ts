import type { Project } from "@keen-pebble/core/edit";
import { freeId } from "@keen-pebble/core/edit";
import { writeWorld } from "@keen-pebble/core/formats";
import { listWorlds, sendFiles } from "./api-client.ts";
import type { OwnStep } from "./outbox.ts";

/**
 * Puts the world as it is here on the shelf under an id of its own, with its sheets and logs; gives back the id.
 * @param into the copy that it goes to; null makes one
 */
export async function sendCopy({ world, logs }: Project, into: string | null): Promise<string> {
  const id =
    into ??
    freeId(
      `${world.id.slice(0, 34)}-mine`,
      (await listWorlds()).worlds.map((each) => each.id),
    );
  const name = `${[...world.name].slice(0, 70).join("")}, as here`;
  const named = [...logs].map(
    ([log, text]) =>
      [log, text.replace(new RegExp(`^(keen-pebble-inputs 1\\n)world ${world.id}\\n`), `$1world ${id}\n`)] as const,
  );
  await sendFiles({
    world: writeWorld({ ...world, id, name }),
    logs: Object.fromEntries(named),
    sheetsOf: world.id,
    origin: "conflict",
  });
  return id;
}

/** Hands a world and its edits to the browser as a file: nothing else would keep them. */
export function keepAsFile({ world, logs }: Project, edits: readonly OwnStep[]): void {
  const text = JSON.stringify(
    {
      world: JSON.parse(writeWorld(world)) as unknown,
      logs: Object.fromEntries(logs),
      edits: edits.map(({ step }) => step),
    },
    null,
    1,
  );
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([text], { type: "application/json" }));
  link.download = `${world.id}.not-saved.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}
