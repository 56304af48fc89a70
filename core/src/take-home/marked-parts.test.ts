import { describe, expect, it } from "vitest";
import { usedLines } from "./marked-parts.ts";

const text = (source: string, ...uses: string[]): string =>
  usedLines(source, new Set(uses))
    .map((line) => line.text)
    .join("|");

describe("the marked parts of a source", () => {
  it("stand there where they are used, else what is said otherwise", () => {
    const source = "a\n//? x\nb\n//:\nc\n//.\nd";
    expect(text(source, "x")).toBe("a|b|d");
    expect(text(source)).toBe("a|c|d");
  });

  it("lie within one another", () => {
    const source = "//? x\na\n//? y\nb\n//:\nc\n//.\n//:\nd\n//.";
    expect(text(source, "x", "y")).toBe("a|b");
    expect(text(source, "x")).toBe("a|c");
    expect(text(source, "y")).toBe("d");
  });

  it("are lines of their own too, with and, or and not", () => {
    const source = "a //? x&!y|z\nb // kept //? x";
    expect(text(source, "x")).toBe("a|b // kept");
    expect(text(source, "x", "y")).toBe("b // kept");
    expect(text(source, "y", "z")).toBe("a");
  });

  it("say what each line is about", () => {
    expect(usedLines("//? x\na //? !y|z\n//.\nb", new Set(["x"]))).toEqual([
      { text: "a", about: ["x", "y", "z"] },
      { text: "b", about: [] },
    ]);
  });

  it.each(["//? x\na", "a\n//.", "//:", "//? x\n//.\n//."])("must begin and end: %j", (source) => {
    expect(() => usedLines(source, new Set())).toThrow(/part/);
  });
});
