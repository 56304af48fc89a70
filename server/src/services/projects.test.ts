import type { Project } from "@keen-pebble/core/edit";
import { emptyWorld } from "@keen-pebble/core/world";
import type { Knex } from "knex";
import { expect, it } from "vitest";
import { Projects } from "./projects.ts";

const MB = 1024 * 1024;
/** Whoever asks the database for what is not in memory fails. */
const NO_DATABASE = null as unknown as Knex;
const project = (bytes = 0): Project => ({
  world: emptyWorld("hall", "Hall", 16),
  logs: new Map(bytes === 0 ? [] : [["long", "x".repeat(bytes)]]),
});
const isKept = (projects: Projects, world: number, revision: number): Promise<boolean> =>
  projects.at(NO_DATABASE, world, revision).then(
    () => true,
    () => false,
  );
/** Which of some numbers are kept. */
async function kept(
  projects: Projects,
  places: readonly (readonly [world: number, revision: number])[],
): Promise<string> {
  const found = await Promise.all(
    places.map(async (place) => ((await isKept(projects, ...place)) ? place.join("/") : "")),
  );
  return found.filter((each) => each !== "").join(" ");
}

it("of a world the last three revisions are kept in memory, the one kept last as the newest", async () => {
  const projects = new Projects();
  for (const revision of [1, 2, 3]) projects.keep(7, revision, project());
  projects.keep(70, 1, project());
  projects.keep(7, 1, project());
  const all = [1, 2, 3, 4].map((revision) => [7, revision] as const);
  expect(await kept(projects, all)).toBe("7/1 7/2 7/3");
  projects.keep(7, 4, project());
  expect(await kept(projects, [...all, [70, 1]])).toBe("7/1 7/3 7/4 70/1");
});

it("of small worlds 160 are kept, and those that were kept first go first", async () => {
  const projects = new Projects();
  const [one] = [project()];
  for (let world = 1; world <= 160; world++) projects.keep(world, 1, one);
  expect(await isKept(projects, 1, 1)).toBe(true);
  for (let world = 161; world <= 163; world++) projects.keep(world, 1, one);
  const [first, ...last] = await Promise.all([3, 4, 160, 163].map((world) => isKept(projects, world, 1)));
  expect([first, ...last]).toEqual([false, true, true, true]);
});

it("large ones go from 64 MB on, but for the one that was kept last, however large it is", async () => {
  const projects = new Projects();
  for (const world of [1, 2, 3]) projects.keep(world, 1, project(20 * MB));
  const all = [1, 2, 3, 4, 5].map((world) => [world, 1] as const);
  expect(await kept(projects, all)).toBe("1/1 2/1 3/1");
  projects.keep(4, 1, project(20 * MB));
  expect(await kept(projects, all)).toBe("2/1 3/1 4/1");
  projects.keep(5, 1, project(90 * MB));
  expect(await kept(projects, all)).toBe("5/1");
});
