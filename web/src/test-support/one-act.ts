import type { Project } from "@keen-pebble/core/edit";
import { expect } from "vitest";
import { session } from "../page-session.ts";

/** Whatever was done since is taken back by one undo, and done again by one redo. */
export function isOneAct(before: Project): void {
  const project = (): Project => session.project.store.getState().project!;
  const after = project();
  expect(session.project.travel("undo")).toBe(true);
  expect(project()).toEqual(before);
  expect(session.project.travel("redo")).toBe(true);
  expect(project()).toEqual(after);
}
