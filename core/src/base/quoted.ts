const MOST_QUOTED = 60;

/** A piece of somebody's text in quotes, for a message: `nothing` where there is none; a long one is cut. */
export function quoted(text: string): string {
  return text === "" ? "nothing" : `"${shortened(text)}"`;
}

/** A piece of somebody's text for a message; a long one is cut. */
export function shortened(text: string): string {
  return text.length > MOST_QUOTED ? `${text.slice(0, MOST_QUOTED)}...` : text;
}
