import { cellFaults, worldFaults } from "../formats/world-faults.ts";
import type { World } from "../world/world.ts";
import { EditError } from "./edit-error.ts";
import { partAddress, partOf, sameJson, withPart } from "../world/parts.ts";
import type { ChangeParts } from "./step.ts";

/**
 * The world with all of the step's parts changed at once, checked as a whole afterwards: what one part needs another
 * may bring.
 * @throws {EditError} where a part is not what the step says was there, or the world that came of it is not in order
 */
export function changeParts(world: World, step: ChangeParts): World {
  let changed = world;
  // Things first, then the order in which they stand.
  const orders: (() => void)[] = [];
  for (const { part, before, after } of step.parts) {
    const address = partAddress(part);
    if (address === null) throw new EditError(`there is no part ${part}`, step, part);
    const present = partOf(world, address);
    if (!sameJson(present, before)) throw new EditError(`${part} is not what it was when this was changed`, step, part);
    if (address.kind === "order") orders.push(() => (changed = ordered(changed, step, part, after)));
    else if (address.kind === "of-room" && present === null)
      throw new EditError(`there is no room ${address.room}`, step, part);
    else changed = withPart(changed, address, after);
  }
  for (const order of orders) order();
  const fault = cellFaults(changed)[0] ?? worldFaults(changed)[0];
  if (fault) throw new EditError(`${fault.path.join(".")}: ${fault.message}`, step, fault.path.join("."));
  return changed;
}

function ordered(world: World, step: ChangeParts, part: string, after: ChangeParts["parts"][number]["after"]): World {
  const address = partAddress(part)!;
  const present = partOf(world, address) as readonly string[];
  const fits = Array.isArray(after) && after.length === present.length && present.every((id) => after.includes(id));
  if (!fits) throw new EditError(`the order of ${part} does not name each of them once`, step, part);
  return withPart(world, address, after);
}
