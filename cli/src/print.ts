/** Prints a line on standard output. */
export type Print = (line: string) => void;
