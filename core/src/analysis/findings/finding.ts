/** Something that a half-made world may have: said, never refused (formats.md section 1). */
export interface Finding {
  readonly place: string;
  readonly message: string;
}
