import type { World } from "../world/world.ts";
import type { Check } from "./check.ts";
import { parseCheck } from "./check.ts";
import type { WordFault } from "./check-words.ts";
import { checkFault } from "./check-words.ts";

/** The world's laws as checks: they must hold in every log of the world (formats.md section 1). */
export function invariantChecks(world: World): Check[] {
  return world.laws.flatMap((law) => {
    const result = parseCheck(law.split(" ").filter((word) => word !== ""));
    // The reader lets no other law in.
    return "check" in result ? [result.check] : [];
  });
}

/** What is wrong with the wording of a law, and where; null for one that a world may have. */
export function invariantFault(world: World, text: string): WordFault | null {
  const fault = checkFault(world, text);
  const [first = ""] = text.trim().split(" ");
  if (fault !== null || first === "always" || first === "never") return fault;
  return { from: text.indexOf(first), to: text.indexOf(first) + first.length, message: "expected always or never" };
}
