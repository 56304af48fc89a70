/** What the keys of the Bench do with the pebble line; the line puts its own in. */
export const lineHandle = {
  /** Comes nearer to the shown frame by a factor, or goes away from it below 1. */
  zoom: (_factor: number): void => undefined,
};
