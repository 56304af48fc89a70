import { STANDARD, UnusableOption } from "./unusable.ts";

/**
 * Refuses to write two things to standard output: they could not be told apart.
 * @param json whether the answer itself goes there as one JSON value
 */
export function ensureApart(
  json: boolean,
  outputs: readonly (readonly [option: string, file: string | undefined])[],
): void {
  const there = [
    ...(json ? ["--json"] : []),
    ...outputs.flatMap(([option, file]) => (file === STANDARD ? [`${option} -`] : [])),
  ];
  if (there.length > 1)
    throw new UnusableOption(`${there.join(" and ")} both write to standard output; give one of them a file`);
}
