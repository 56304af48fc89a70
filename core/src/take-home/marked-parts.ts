/** What a world and a rule set use of the program, by name (`uses.ts`). */
export type Uses = ReadonlySet<string>;

/** A line of the program, and which uses it stands there for: those of all marks round it, and its own. */
export interface MarkedLine {
  readonly text: string;
  readonly about: readonly string[];
}

/**
 * Leaves out of a marked source what is not used. A mark is a comment: `//? USE` opens a part, `//:` begins what stands
 * there otherwise, `//.` ends it; a line that ends in `//? USE` is a part of its own. `USE` is names with `&`, `|` and `!`
 * (`|` binds least).
 * @throws {Error} where a part is not ended: the source is wrong
 */
export function usedLines(source: string, uses: Uses): MarkedLine[] {
  const open: Part[] = [];
  const lines: MarkedLine[] = [];
  for (const line of source.split("\n")) {
    const mark = line.trim();
    if (mark.startsWith("//? ")) open.push(partOf(mark.slice(4), uses));
    else if (mark === "//:" || mark === "//.") {
      const part = open.pop();
      if (part === undefined) throw new Error(`\`${mark}\` stands in no part`);
      if (mark === "//:") open.push({ ...part, holds: !part.holds });
    } else {
      const at = line.indexOf(" //? ");
      const marks = at < 0 ? open : [...open, partOf(line.slice(at + 5), uses)];
      if (!marks.every(({ holds }) => holds)) continue;
      lines.push({ text: at < 0 ? line : line.slice(0, at), about: marks.flatMap(({ about }) => about) });
    }
  }
  if (open.length > 0) throw new Error(`a part is not ended: ${open.map(({ about }) => about.join(" ")).join(", ")}`);
  return lines;
}

/** A part that is open: whether it stands, and which uses its mark names. */
interface Part {
  readonly holds: boolean;
  readonly about: readonly string[];
}

function partOf(condition: string, uses: Uses): Part {
  const holds = condition
    .split("|")
    .some((any) => any.split("&").every((name) => (name.startsWith("!") ? !uses.has(name.slice(1)) : uses.has(name))));
  return { holds, about: condition.split(/[&|]/).map((name) => name.replace("!", "")) };
}
