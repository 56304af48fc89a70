/** For `vi.waitFor`: a condition is looked at often, and may take long on a machine that others work on too. */
export const PATIENCE = { timeout: 30_000, interval: 5 } as const;
