/** Something that a command asks of whoever shows it. While nobody does, nothing happens. */
export class Asked<A extends readonly unknown[] = []> {
  private by: ((...what: A) => void) | null = null;

  /** Is answered so from now on, as an effect of a component; gives back what ends that. */
  readonly answer = (by: (...what: A) => void): (() => void) => {
    this.by = by;
    return () => {
      if (this.by === by) this.by = null;
    };
  };

  readonly ask = (...what: A): void => this.by?.(...what);
}

/**
 * What commands ask of the field (the keyboard, a place in px of the room to be in view, a picture of it for a fault), of the pebble line (nearer by a factor, farther below 1), of Proofs, of the Shelf, and of
 * the address: what it says of room, log and frame.
 */
export const makeAsked = () => ({
  fitRoom: new Asked(),
  focusField: new Asked(),
  noteFault: new Asked(),
  showPlace: new Asked<[x: number, y: number]>(),
  zoomLine: new Asked<[factor: number]>(),
  openOnBench: new Asked(),
  searchLogs: new Asked(),
  chooseWorld: new Asked<[by: number]>(),
  takeOffWorld: new Asked(),
  searchWorlds: new Asked(),
  openWorld: new Asked<[world: string]>(),
  writeAddress: new Asked<[world: string, search: string]>(),
});

/** What `makeAsked` makes. */
export type AskedOf = ReturnType<typeof makeAsked>;
