import type { EditStep } from "@keen-pebble/core/edit";
import { STRICT, partSchema } from "@keen-pebble/core/reading";

/**
 * Steps as they were stored, in the form that they would have today: a key that the format got since then has its
 * default, as it has in the world that they lead on from.
 */
export function storedSteps(steps: readonly EditStep[]): EditStep[] {
  return steps.map((step) =>
    step.kind === "change-parts"
      ? {
          ...step,
          parts: step.parts.map(({ part, before, after }) => ({
            part,
            before: withDefaults(part, before),
            after: withDefaults(part, after),
          })),
        }
      : step,
  );
}

function withDefaults<V>(part: string, value: V): V {
  const result = partSchema(part)?.validate(value, STRICT);
  // What was stored was let in once; should it not be any more, the step says so itself.
  return result === undefined || result.error ? value : (result.value as V);
}
