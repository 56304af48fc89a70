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
/** What begins like a number and is none, as one piece. */
const NO_NUMBER = /[-+]?\d[\w.]*/y;
const NAME = /[A-Za-z_.][\w.:]*/y;
const QUOTED = /"[^"\n]*"|'[^'\n]*'|`[^`]*`/y;
const LINE_COMMENT = /\/\/[^\n]*|--(?!\d)[^\n]*|#[^\n]*/y;
const BLOCK_COMMENTS = [
  ["/*", "*/"],
  ["--[[", "]]"],
  ["<!--", "-->"],
] as const;

/**
 * A text in pieces: numbers, brackets of any kind, what stands between them. Comments are left out; `#` begins one at the
 * start of a line or behind a blank. Each character is looked at a few times at the most, whatever the text.
 */
export function numberTokens(text: string): NumberToken[] {
  return new Tokens(text).all();
}

class Tokens {
  private readonly tokens: NumberToken[] = [];
  private line = 1;
  /** Where the line begins. */
  private start = 0;
  /** Ends of comments that do not come any more: not looked for again. */
  private readonly gone = new Set<string>();

  constructor(private readonly text: string) {}

  all(): NumberToken[] {
    const { text } = this;
    for (let at = 0; at < text.length;) at = this.piece(at);
    return this.tokens;
  }

  /** Takes the piece at that place; where the next one begins. */
  private piece(at: number): number {
    const character = this.text[at]!;
    if (character === "\n") {
      this.add("line", at, character);
      this.line++;
      this.start = at + 1;
      return at + 1;
    }
    if (/\s/.test(character)) return at + 1;
    if ("/-<#".includes(character)) {
      const end = this.commentEnd(at);
      if (end > at) return end;
    }
    if ("[{(".includes(character)) return this.add("open", at, character);
    if ("]})".includes(character)) return this.add("close", at, character);
    if (",;|".includes(character)) return this.add("separator", at, character);
    if ("\"'`".includes(character)) return this.quoted(at, character);
    if (/[A-Za-z_.]/.test(character)) return this.add("name", at, this.matched(NAME, at)![0]);
    const number = this.matched(NUMBER, at);
    if (number !== null) return this.add("number", at, number[0], valueOf(number));
    return this.add("other", at, this.matched(NO_NUMBER, at)?.[0] ?? character);
  }

  private quoted(at: number, character: string): number {
    const found = this.gone.has(character) ? null : this.matched(QUOTED, at);
    if (found !== null) {
      const end = this.add("string", at, found[0]);
      this.countLines(at, end);
      return end;
    }
    // One that spans lines and is not closed is not closed further on either.
    if (character === "`") this.gone.add(character);
    return this.add("other", at, character);
  }

  /** Where a comment that begins there ends; that very place where none begins. */
  private commentEnd(at: number): number {
    const { text, gone } = this;
    for (const [opens, closes] of BLOCK_COMMENTS) {
      if (!text.startsWith(opens, at) || gone.has(closes)) continue;
      const end = text.indexOf(closes, at + opens.length);
      if (end < 0) {
        gone.add(closes);
        continue;
      }
      this.countLines(at, end);
      return end + closes.length;
    }
    if (text[at] === "#" && at > 0 && !/\s/.test(text[at - 1]!)) return at;
    return at + (this.matched(LINE_COMMENT, at)?.[0].length ?? 0);
  }

  private countLines(from: number, to: number): void {
    for (let at = from; at < to; at++) {
      if (this.text[at] !== "\n") continue;
      this.line++;
      this.start = at + 1;
    }
  }

  private matched(pattern: RegExp, at: number): RegExpExecArray | null {
    pattern.lastIndex = at;
    return pattern.exec(this.text);
  }

  private add(kind: NumberToken["kind"], at: number, text: string, value = 0): number {
    this.tokens.push({ kind, text, line: this.line, column: at - this.start + 1, value });
    return at + text.length;
  }
}

function valueOf([, sign, prefixed, suffixed, decimal]: RegExpExecArray): number {
  const digits = prefixed ?? suffixed;
  const value = digits === undefined ? Number(decimal) : Number.parseInt(digits, 16);
  return sign === "-" ? -value : value;
}
