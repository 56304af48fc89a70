/**
 * How much longer random play is looked at than in `npm test`: `EFFORT=50 npx vitest run --project core reach
 * --testTimeout 0` plays 1,750 worlds for 100,000 frames each.
 */
export const EFFORT = Number(process.env["EFFORT"] ?? 1);
