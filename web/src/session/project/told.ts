/** Something told to the person: good to know, or in need of attention. */
export interface Told {
  readonly tone: "info" | "attention";
  readonly text: string;
}
