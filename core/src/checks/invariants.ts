import type { World } from "../world/world.ts";
import type { Check } from "./check.ts";
import { parseCheck } from "./check.ts";

/** The world's laws as checks: they must hold in every log of the world (formats.md section 1). */
export function invariantChecks(world: World): Check[] {
  return world.laws.flatMap((law) => {
    const result = parseCheck(law.split(" ").filter((word) => word !== ""));
    // The reader lets no other law in.
    return "check" in result ? [result.check] : [];
  });
}
