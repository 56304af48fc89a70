/** What commands may ask of the Shelf; the page fills it in while it is shown. */
export const shelfHandle: { choose: (by: number) => void; takeOff: () => void; search: () => void } = {
  choose: () => undefined,
  takeOff: () => undefined,
  search: () => undefined,
};
