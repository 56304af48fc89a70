import fc from "fast-check";
import { expect, it } from "vitest";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Actor } from "../world/actors.ts";
import { newActor } from "../world/actors.ts";
import { apply } from "./apply.ts";
import { differences } from "./differences.ts";
import { onTop } from "./on-top.ts";
import type { Project } from "./project.ts";
import { invert } from "./step.ts";

const BASE = tinyWorld(["S    ", "     "]);

function withActors(...actors: readonly (string | readonly [id: string, speed: number])[]): Project {
  const made = actors.map((each): Actor => {
    const [id, speed] = typeof each === "string" ? [each, 1] : each;
    return { ...newActor(id, [1, 1], BASE), speed };
  });
  return { world: { ...BASE, rooms: [{ ...BASE.rooms[0]!, actors: made }] }, logs: new Map() };
}
const told = ({ world }: Project): string => world.rooms[0]!.actors.map(({ id, speed }) => `${id}=${speed}`).join(" ");
/** What two who began with the same come to, the second on top of the first. */
function both(base: Project, first: Project, second: Project): Project {
  return differences(base, second).reduce((at, step) => apply(at, onTop(at, step)), first);
}

it("changes of two to different actors of a room come together, whoever is on top", () => {
  const base = withActors("a", "b", "c");
  const faster = withActors(["a", 2], "b", "c");
  const other = withActors("a", "c", "d");
  expect(told(both(base, faster, other))).toBe("a=2 c=1 d=1");
  expect(told(both(base, other, faster))).toBe("a=2 c=1 d=1");
});

it("one that both changed, one deleted, or both added with different settings stays with the first: the second does not apply", () => {
  const base = withActors("a", "b");
  const refused = (first: Project, second: Project) =>
    expect(() => both(base, first, second)).toThrow("is not what it was");
  refused(withActors(["a", 2], "b"), withActors(["a", 3], "b"));
  refused(withActors("b"), withActors(["a", 3], "b"));
  refused(withActors(["a", 2], "b"), withActors("b"));
  refused(withActors("a", "b", ["c", 2]), withActors("a", "b", ["c", 3]));
  refused(withActors("a", "b", "c"), withActors("b", "a"));
});

it("what was changed in a room that somebody else deleted does not apply, and is left as it is", () => {
  const base = withActors("a", "b");
  const [step] = differences(base, withActors(["a", 2], "b"));
  const without: Project = { ...base, world: { ...base.world, rooms: [{ ...base.world.rooms[0]!, id: "other" }] } };
  expect(onTop(without, step!)).toEqual(step);
  expect(() => apply(without, step!)).toThrow("rooms/a/actors");
});

it("what is new stands behind what it stood behind, first where it stood first, and last where that is gone", () => {
  const base = withActors("a", "c");
  expect(told(both(base, withActors("a", "c", "d"), withActors("a", "b", "c")))).toBe("a=1 b=1 c=1 d=1");
  expect(told(both(base, withActors("a", "c", "d"), withActors("b", "a", "c")))).toBe("b=1 a=1 c=1 d=1");
  expect(told(both(base, withActors("c", "d"), withActors("a", "b", "c")))).toBe("c=1 d=1 b=1");
});

it("an undo after somebody else's change takes back the own one alone, and what comes back stands where it was", () => {
  const base = withActors("a", "b", "c");
  const [step] = differences(base, withActors("a", "c"));
  const meanwhile = withActors("a", ["c", 4], "d");
  expect(told(apply(meanwhile, onTop(meanwhile, invert(step!))))).toBe("a=1 b=1 c=4 d=1");
  const first = differences(base, withActors("b", "c"))[0]!;
  const left = withActors(["b", 2], "c");
  expect(told(apply(left, onTop(left, invert(first))))).toBe("a=1 b=2 c=1");
});

it("fixtures come together as actors do; other parts and other steps are left as they are", () => {
  const mark = (id: string) => ({ id, kind: "marker", name: id, cell: [0, 0], touch: "cell", keeps: "run" }) as const;
  const of = (...ids: string[]): Project => ({
    world: { ...BASE, rooms: [{ ...BASE.rooms[0]!, fixtures: ids.map(mark) }] },
    logs: new Map(),
  });
  const made = both(of("m"), of("m", "n"), of("m", "o"));
  expect(made.world.rooms[0]!.fixtures.map(({ id }) => id).sort()).toEqual(["m", "n", "o"]);
  const renamed = (name: string): Project => ({ ...of("m"), world: { ...of("m").world, name } });
  expect(() => both(of("m"), renamed("One"), renamed("Other"))).toThrow("name is not what it was");
  const cells = { kind: "set-cells", room: "a", cells: [1], before: [0], after: [1] } as const;
  expect(onTop(of("m"), cells)).toBe(cells);
});

it("changes that do not meet give the same actors in either order, and each side's can be undone alone", () => {
  const anySide = fc.record({
    faster: fc.uniqueArray(fc.constantFrom("0", "1", "2"), { maxLength: 3 }),
    deleted: fc.uniqueArray(fc.constantFrom("3", "4"), { maxLength: 2 }),
    added: fc.integer({ min: 0, max: 3 }),
  });
  const base = withActors(...Array.from({ length: 10 }, (_, i) => `a-${i}`));
  fc.assert(
    fc.property(anySide, anySide, (one, other) => {
      // The one side has the first five for itself, the other the last.
      const side = ({ faster, deleted, added }: typeof one, from: number, name: string): Project =>
        withActors(
          ...Array.from({ length: 10 }, (_, i) => i)
            .filter((i) => !deleted.includes(String(i - from) as never))
            .map((i) => [`a-${i}`, faster.includes(String(i - from) as never) ? 2 : 1] as const),
          ...Array.from({ length: added }, (_, i) => `${name}-${i}`),
        );
      const [left, right] = [side(one, 0, "left"), side(other, 5, "right")];
      const sorted = (project: Project) => told(project).split(" ").sort();
      const together = both(base, left, right);
      expect(sorted(together)).toEqual(sorted(both(base, right, left)));
      const back = differences(base, left)
        .map(invert)
        .reduce((at, step) => apply(at, onTop(at, step)), together);
      expect(told(back)).toEqual(told(right));
    }),
    { seed: 19, numRuns: 300 },
  );
});
