import type { Request } from "express";
import { addressIds, revisionAddress, searchAddress } from "./address-schemas.ts";
import { validate } from "./validate.ts";

/** The world that an address names. */
export const worldOf = (req: Request): string => validate<{ world: string }>(addressIds, req.params).world;

/** The world and the log that an address names. */
export const logOf = (req: Request): { world: string; log: string } => validate(addressIds, req.params);

/** The world and the search that an address names. */
export const searchOf = (req: Request): { world: string; search: string } => validate(searchAddress, req.params);

/** The world and the number of the revision that an address names. */
export const revisionOf = (req: Request): { world: string; revision: number } => {
  const { world, revision } = validate<{ world: string; revision: string }>(revisionAddress, req.params);
  return { world, revision: Number(revision) };
};
