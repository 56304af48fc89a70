/** A piece of a text that has numbers in it; `line` and `column` count from 1. */
export interface NumberToken {
  readonly kind: "number" | "string" | "open" | "close" | "separator" | "line" | "name" | "other";
  readonly text: string;
  readonly line: number;
  readonly column: number;
  /** Of numbers. */
  readonly value: number;
}

/** Hexadecimal as `0x1F`, `$1F`, `&H1F` or `1Fh`, or decimal; a sign, and letters that say how wide it is (`3u`, `3L`). */
const NUMBER = /([-+]?)(?:(?:0[xX]|\$|&[hH])([0-9a-fA-F]+)|([0-9][0-9a-fA-F]*)[hH]|([0-9]+))[uUlL]{0,3}(?![\w.])/y;
const NAME = /[A-Za-z_.][\w.:]*/y;
/** What begins like a number and is none, as one piece. */
const NO_NUMBER = /[-+]?\d[\w.]*/y;
const STRING = /"(?:[^"\\\n]|\\.)*"|'(?:[^'\\\n]|\\.)*'|`[^`\\]*`/y;
const COMMENT = /\/\/[^\n]*|\/\*[^]*?\*\/|--\[\[[^]*?\]\]|--(?=[^\d\n]|\n)[^\n]*|<!--[^]*?-->/y;

/**
 * A text in pieces: numbers, brackets of any kind, what stands between them. Comments are left out; `#` begins one at the
 * start of a line or behind a blank.
 */
export function numberTokens(text: string): NumberToken[] {
  const tokens: NumberToken[] = [];
  let line = 1;
  let start = 0;
  const add = (kind: NumberToken["kind"], at: number, piece: string, value = 0): void => {
    tokens.push({ kind, text: piece, line, column: at - start + 1, value });
  };
  const matched = (pattern: RegExp, at: number): RegExpExecArray | null => {
    pattern.lastIndex = at;
    return pattern.exec(text);
  };
  for (let at = 0; at < text.length;) {
    const character = text[at]!;
    if (character === "\n") {
      add("line", at, character);
      line++;
      start = ++at;
      continue;
    }
    const comment =
      matched(COMMENT, at) ?? (character === "#" && /^$|\s/.test(text[at - 1] ?? "") ? matched(/#[^\n]*/y, at) : null);
    if (comment !== null) {
      for (let i = at; i < at + comment[0].length; i++)
        if (text[i] === "\n") {
          line++;
          start = i + 1;
        }
      at += comment[0].length;
      continue;
    }
    const number = matched(NUMBER, at);
    const piece = number ?? matched(STRING, at) ?? matched(NAME, at) ?? matched(NO_NUMBER, at);
    if (number !== null) add("number", at, number[0], valueOf(number));
    else if (piece !== null)
      add(/["'`]/.test(character) ? "string" : /[-+\d]/.test(character) ? "other" : "name", at, piece[0]);
    else if ("[{(".includes(character)) add("open", at, character);
    else if ("]})".includes(character)) add("close", at, character);
    else if (",;|".includes(character)) add("separator", at, character);
    else if (!/\s/.test(character)) add("other", at, character);
    at += piece?.[0].length ?? 1;
  }
  return tokens;
}

function valueOf([, sign, prefixed, suffixed, decimal]: RegExpExecArray): number {
  const digits = prefixed ?? suffixed;
  const value = digits === undefined ? Number(decimal) : Number.parseInt(digits, 16);
  return sign === "-" ? -value : value;
}
