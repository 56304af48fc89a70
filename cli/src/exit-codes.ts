/** Exit codes of the command line (formats.md section 7). */
export const OK = 0;
/** Refused, failing or different: the answer is no. */
export const NO = 1;
/** The call's words are off, or a file cannot be read at all. */
export const UNUSABLE = 2;
