/**
 * A file's text as our formats have it: without a byte-order mark, lines ended by LF. Editors of other systems add the one
 * and end lines by CRLF; both are read, and never written.
 */
export function plainText(text: string): string {
  const bare = text.startsWith("\ufeff") ? text.slice(1) : text;
  return bare.includes("\r\n") ? bare.replaceAll("\r\n", "\n") : bare;
}
