import { session } from "../../page-session.ts";
import type { EditStep } from "@keen-pebble/core/edit";
import type { World } from "@keen-pebble/core/world";
import { readWorld } from "@keen-pebble/core/reading";
import { toPlain } from "@keen-pebble/core/formats";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { ALONG, hall } from "../../test-support/hall.ts";
import type { Answering, Opened } from "../../test-support/opened.ts";
import { openHere, problem, until } from "../../test-support/opened.ts";

let opened: Opened;
/** Steps that the server has stored. */
let stored: EditStep[];
/** Files that were sent to be kept as a copy. */
let copies: { readonly world: string; readonly logs: Record<string, string> }[];

beforeEach(async () => {
  stored = [];
  copies = [];
  let revision = 1;
  // It takes every speed but those above 8.
  const store: Answering = (body) => {
    const { steps } = body as { readonly steps: readonly EditStep[] };
    if (steps.some((step) => step.kind === "change-rules" && Number(step.after) > 8))
      return problem(422, "refused", "too fast for this server");
    stored.push(...steps);
    return Response.json({ revision: ++revision, summary: "" });
  };
  opened = await openHere(hall(), { along: ALONG }, [
    ["POST /worlds/hall/revisions", store],
    ["GET /worlds", { worlds: [{ id: "hall" }] }],
    [
      "POST /imports",
      (body: unknown) => {
        copies.push(body as (typeof copies)[number]);
        return Response.json({ id: "hall-mine", name: "", made: "world", revision: 1, summary: "", steps: [] });
      },
    ],
  ]);
});
afterEach(() => opened.close());

const world = (): World => session.project.store.getState().project!.world;
const saving = () => session.saveStore.getState();
const notice = (): string => session.project.store.getState().notice?.text ?? "";
const speed = (setting: string, after: number): boolean => {
  const [group, name] = setting.split(".") as ["glide", "speed"];
  const before = world().rules[0]![group][name];
  return session.project.edit({ kind: "change-rules", rules: "main", setting, before, after });
};
/** Two edits that are fine, and one between them that the server refuses. */
async function refuseOne(): Promise<void> {
  session.project.changeWorld((now) => ({ ...now, name: "Bright hall" }));
  speed("glide.speed", 12);
  session.project.changeWorld((now) => ({ ...now, frameRate: 30 }));
  session.project.saveNow();
  await until(() => saving().refused.length === 1 && saving().waiting === 1, "none was refused");
}

describe("an edit that the server refuses", () => {
  it("is set aside by itself with what the server said; all others are saved, and later ones too", async () => {
    await refuseOne();
    expect(saving().refused).toMatchObject([
      { step: { setting: "glide.speed", after: 12 }, refused: "too fast for this server" },
    ]);
    expect(stored.map((step) => (step.kind === "change-parts" ? step.parts[0]!.part : step.kind))).toEqual([
      "name",
      "frameRate",
    ]);
    expect(world().rules[0]!.glide.speed).toBe(12);
    session.project.changeWorld((now) => ({ ...now, seed: 9 }));
    session.project.saveNow();
    await until(() => stored.length === 3);
    expect(saving().refused).toHaveLength(1);
  });

  it("is corrected by another value, which is then saved", async () => {
    await refuseOne();
    speed("glide.speed", 6);
    session.project.saveNow();
    await until(() => saving().state === "saved" && saving().refused.length === 0);
    expect(stored.at(-1)).toMatchObject({ setting: "glide.speed", before: 2, after: 6 });
  });

  it("is taken back like any other edit, and can be done again", async () => {
    await refuseOne();
    session.project.undoRefused();
    expect(world().rules[0]!.glide.speed).toBe(2);
    await until(() => saving().refused.length === 0);
    // What it took back is as if it had never been.
    expect(stored.some((step) => step.kind === "change-rules")).toBe(false);
    expect(world()).toMatchObject({ name: "Bright hall", frameRate: 30 });
    expect(session.project.travel("undo")).toBe(true);
    expect(world().rules[0]!.glide.speed).toBe(12);
  });

  it("cannot be taken back by itself where later edits stand on it, and says so", async () => {
    await refuseOne();
    session.project.store.setState(({ project }) => ({
      project: {
        ...project!,
        world: {
          ...project!.world,
          rules: project!.world.rules.map((rules, i) =>
            i === 0 ? { ...rules, glide: { ...rules.glide, speed: 5 } } : rules,
          ),
        },
      },
    }));
    session.project.undoRefused();
    expect(notice()).toContain("Later edits stand on some of those that were refused");
  });

  it("is kept with the whole world as a copy on the shelf", async () => {
    await refuseOne();
    await session.project.keepRefused();
    expect(copies).toHaveLength(1);
    const copy = readWorld(copies[0]!.world);
    expect([copy.id, copy.name, copy.rules[0]!.glide.speed, Object.keys(copies[0]!.logs)]).toEqual([
      "hall-mine",
      "Bright hall, as here",
      12,
      ["along"],
    ]);
    expect(notice()).toBe("Kept on the shelf as hall-mine.");
  });

  it("is forgotten where one discards it: the world is as the server has it, with what waits put on top", async () => {
    await refuseOne();
    opened.answers.set("GET /worlds/hall", {
      revision: 3,
      world: toPlain({ ...hall(), name: "Bright hall", frameRate: 30 }),
      logs: { along: ALONG },
    });
    session.project.changeWorld((now) => ({ ...now, seed: 9 }));
    await session.project.discardRefused();
    expect(world()).toMatchObject({
      name: "Bright hall",
      frameRate: 30,
      seed: 9,
      rules: [{ glide: { speed: 2 } }, {}, {}],
    });
    expect(saving().refused).toEqual([]);
    // What was done before may stand on what is forgotten.
    expect(session.project.travel("undo", true)).toBe(false);
    session.project.saveNow();
    await until(() => saving().state === "saved");
    expect(stored.at(-1)).toMatchObject({ kind: "change-parts", parts: [{ part: "seed" }] });
  });

  it("stays where discarding cannot be asked for, and nothing is lost by it", async () => {
    await refuseOne();
    opened.answers.set("GET /worlds/hall", new TypeError("no connection"));
    await session.project.discardRefused();
    expect(notice()).toBe("the server does not answer; nothing was discarded.");
    expect(saving().refused).toHaveLength(1);
    expect(world().rules[0]!.glide.speed).toBe(12);
  });
});
