/** Something that went wrong on the Shelf, in words for the person. */
export class ShelfError extends Error {
  constructor(message: string) {
    super(message);
    this.name = "ShelfError";
  }
}
