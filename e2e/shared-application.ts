import type { TestProject } from "vitest/node";
import { Started } from "./started.ts";

declare module "vitest" {
  interface ProvidedContext {
    readonly sharedApplication: string;
  }
}

/**
 * One application for all files of browser tests that work in worlds of their own, beside each other: what a start costs
 * is paid once. It runs no logs by itself.
 * @returns what ends it
 */
export async function setup({ provide }: TestProject): Promise<() => Promise<void>> {
  const started = await Started.start(false);
  provide("sharedApplication", started.address);
  return () => started.stop();
}
