/**
 * Base of every error that the core throws on purpose. Callers test `code`, never the message:
 * HTTP statuses and exit codes are tables in `server/` and `cli/`.
 */
export class CoreError extends Error {
  /**
   * @param code stable name of the kind of error, such as `refused`
   * @param message one clear sentence for a person
   * @param data what a program may want to know about it; plain JSON
   */
  constructor(
    readonly code: string,
    message: string,
    readonly data: unknown = null,
  ) {
    super(message);
    this.name = new.target.name;
  }
}
