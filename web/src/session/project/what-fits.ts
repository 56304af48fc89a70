import type { Project } from "@keen-pebble/core/edit";
import { EditError, apply, onTop } from "@keen-pebble/core/edit";
import type { OwnStep } from "./outbox.ts";

/** Applies steps on top of what changed since they were made; gives them back as they were applied. */
export function applyWhatFits(
  project: Project,
  steps: readonly OwnStep[],
): { after: Project; kept: OwnStep[]; lost: OwnStep[] } {
  let after = project;
  const kept: OwnStep[] = [];
  const lost: OwnStep[] = [];
  for (const each of steps) {
    try {
      const step = onTop(after, each.step);
      after = apply(after, step);
      kept.push({ ...each, step });
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      lost.push(each);
    }
  }
  return { after, kept, lost };
}
