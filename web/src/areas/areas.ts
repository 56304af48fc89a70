/** The areas of a world, each loaded when it is visited first. */
export const AREAS = {
  world: () => import("./world/world-layout.tsx"),
  bench: () => import("./bench/bench-page.tsx"),
  floorplan: () => import("./floorplan/floorplan-page.tsx"),
  reach: () => import("./reach/reach-page.tsx"),
  proofs: () => import("./proofs/proofs-page.tsx"),
  journal: () => import("./journal/journal-page.tsx"),
} as const;

/** Loads all areas while nothing else is to be done: one goes from one to the other also while the server is away. */
export function loadAreas(): void {
  const idle = globalThis.requestIdleCallback ?? ((act: () => void) => setTimeout(act, 200));
  // What does not come now is asked for again when it is visited.
  for (const load of Object.values(AREAS)) idle(() => void load().catch(() => undefined));
}
