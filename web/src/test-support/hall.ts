import type { World } from "@keen-pebble/core/world";
import { emptyWorld, newRules } from "@keen-pebble/core/world";

/** A bare hall of 20 by 12 cells under three rule sets; the first goes 2 px a frame. */
export function hall(id = "hall"): World {
  const world = emptyWorld(id, "Hall", 16);
  const [room] = world.rooms;
  const glide = newRules("main", "Main", "glide", 16);
  const rules = [
    { ...glide, glide: { ...glide.glide, speed: 2 } },
    newRules("free", "Free", "roam", 16),
    newRules("ice", "Ice", "drift", 16),
  ];
  return { ...world, rules, start: { room: room!.id, cell: [2, 2], facing: "down" } };
}

/** A log of the hall that goes four cells to the right. */
export const ALONG = "keen-pebble-inputs 1\ntitle Along\ncheck by 40 cell 6 2\ncheck always aligned\n---\n32 R\n8 .\n";
/** One that goes two cells down. */
export const DOWN = "keen-pebble-inputs 1\ntitle Down\ncheck end cell 2 4\n---\n16 D\n";
