/** What the keys of Proofs do with its page; the page puts its own in. */
export const boardHandle = {
  open: (): void => undefined,
  search: (): void => undefined,
};
