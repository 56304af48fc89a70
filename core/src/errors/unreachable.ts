/**
 * Ends an exhaustive switch: does not compile when a case is missing, and throws when one gets there all the same.
 * @throws {Error} always
 */
export function unreachable(value: never): never {
  throw new Error(`unreachable: ${JSON.stringify(value)}`);
}
