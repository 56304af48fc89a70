import { readFileSync } from "node:fs";
import { session } from "../../page-session.ts";
import { toPlain, writeRoomText } from "@keen-pebble/core/formats";
import type { EditStep } from "@keen-pebble/core/edit";
import { describe, expect, it, vi } from "vitest";
import { hall } from "../../test-support/hall.ts";
import type { Answering } from "../../test-support/opened.ts";
import { openHere, problem, until } from "../../test-support/opened.ts";

const answered = (id: string, revision: number, name = "Hall") => ({
  revision,
  world: toPlain({ ...hall(id), name }),
  logs: {},
});

it("what was edited just before one leaves a world can be undone there when one comes back", async () => {
  const { answers, asked, close } = await openHere(hall(), {}, [["GET /worlds/other", answered("other", 1)]]);
  session.project.changeWorld((world) => ({ ...world, name: "Nave" }));
  // Left at once: the edit is stored once the other world is asked for.
  await session.project.openProject("other");
  await until(() => asked.includes("POST /worlds/hall/revisions"));
  expect(session.project.travel("undo", true)).toBe(false);
  answers.set("GET /worlds/hall", answered("hall", 2, "Nave"));
  await session.project.openProject("hall");
  expect(session.project.travel("undo")).toBe(true);
  expect(session.project.store.getState().project!.world.name).toBe("Hall");
  close();
});

describe("what was edited just before one leaves a world that somebody else has changed", () => {
  /** Somebody else has renamed the hall; whoever stores on what was before is told. */
  const renamed = (stored: EditStep[]): Answering => {
    const theirs: EditStep = { kind: "change-parts", parts: [{ part: "name", before: "Hall", after: "Chapel" }] };
    return (body) => {
      const { base, steps } = body as { readonly base: number; readonly steps: readonly EditStep[] };
      if (base < 2)
        return Response.json(
          { type: "", title: "", status: 409, detail: "", code: "stale-base", data: { revision: 2, steps: [theirs] } },
          { status: 409 },
        );
      stored.push(...steps);
      return Response.json({ revision: 3, summary: "" });
    };
  };

  it("is put on top and stored, and nothing of it is seen in the world that is opened then", async () => {
    const stored: EditStep[] = [];
    const { close } = await openHere(hall("porch"), {}, [
      ["GET /worlds/other", answered("other", 1)],
      ["POST /worlds/porch/revisions", renamed(stored)],
    ]);
    session.project.changeWorld((world) => ({ ...world, seed: 9 }));
    await session.project.openProject("other");
    expect(stored).toMatchObject([{ kind: "change-parts", parts: [{ part: "seed", after: 9 }] }]);
    expect(session.project.store.getState()).toMatchObject({ phase: "ready", worldId: "other", notice: null });
    expect(session.project.store.getState().project!.world).toEqual(hall("other"));
    close();
  });

  it("is kept as a copy where it fits no more, and that is told in the world that is opened then", async () => {
    const copies: unknown[] = [];
    const { close } = await openHere(hall("attic"), {}, [
      ["GET /worlds/other", answered("other", 1)],
      ["GET /worlds", { worlds: [{ id: "attic" }, { id: "other" }] }],
      ["POST /worlds/attic/revisions", renamed([])],
      ["POST /imports", (body: unknown) => Response.json({ id: "attic-mine", copies: copies.push(body) })],
    ]);
    session.project.changeWorld((world) => ({ ...world, name: "Nave" }));
    await session.project.openProject("other");
    expect(copies).toHaveLength(1);
    expect(session.project.store.getState()).toMatchObject({
      phase: "ready",
      worldId: "other",
      notice: {
        text: "Nave was changed elsewhere. 0 edits of yours could be put on top; not name Hall to Nave. The world as it was here is kept on the shelf as attic-mine.",
      },
    });
    close();
  });
});

it("what is read of files, or sent, when another world is opened changes nothing in that one", async () => {
  const { answers, asked, close } = await openHere({ ...hall("loft"), rooms: hall().rooms }, {}, [
    ["GET /worlds/other", answered("other", 1)],
  ]);
  const png = readFileSync("demo/saltglass-cistern/sheets/cistern.png");
  let put: (response: Response) => void = () => undefined;
  answers.set("PUT /worlds/loft/sheets/wall.png", () => new Promise<Response>((resolve) => (put = resolve)));
  const sheet = session.sheets.bringInSheet(new File([png], "wall.png"));
  await until(() => asked.includes("PUT /worlds/loft/sheets/wall.png"));
  const text = writeRoomText(hall(), hall().rooms[0]!).replace(".", "#");
  let read: () => void = () => undefined;
  const reading = new Promise<void>((resolve) => (read = resolve));
  const slow = (content: string, name: string): File => {
    const file = new File([content], name);
    file.arrayBuffer = () => reading.then(() => File.prototype.arrayBuffer.call(file));
    return file;
  };
  const reads = [
    session.board.takeLogsIn([slow("keen-pebble-inputs 1\n---\n4 .\n", "stand.inputs")]),
    session.rooms.readRoomFile(slow(text, "hall.txt")),
  ];
  await session.project.openProject("other");
  read();
  await Promise.all(reads);
  put(Response.json({ file: "wall.png", width: 1, height: 1 }));
  await sheet;
  const { project, notice, history } = session.project.store.getState();
  expect([project!.world, project!.logs.size, notice, history.done]).toEqual([hall("other"), 0, null, []]);
  close();
});

it("a world that was left before it was there is not opened any more", async () => {
  const { answers, asked, close } = await openHere(hall(), {});
  let answer: (response: Response) => void = () => undefined;
  answers.set("GET /worlds/other", () => new Promise<Response>((resolve) => (answer = resolve)));
  const opening = session.project.openProject("other");
  await until(() => asked.includes("GET /worlds/other"));
  session.project.closeProject();
  answer(Response.json({ revision: 1, world: toPlain(hall("other")), logs: {} }));
  await opening;
  expect(session.project.store.getState()).toMatchObject({ phase: "none", worldId: null, project: null });
  expect(session.project.simulationClient()).toBeNull();
  close();
});

it("a world that was left before it could not be opened may be taken over by others", async () => {
  const { answers, asked, close } = await openHere(hall(), {});
  const released = vi.spyOn(session.outbox, "release");
  let answer: (response: Response) => void = () => undefined;
  answers.set("GET /worlds/gone", () => new Promise<Response>((resolve) => (answer = resolve)));
  const opening = session.project.openProject("gone");
  await until(() => asked.includes("GET /worlds/gone"));
  session.project.closeProject();
  answer(problem(404, "not-found", "no such world"));
  await opening;
  expect(released).toHaveBeenCalledWith("gone");
  expect(session.project.store.getState()).toMatchObject({ phase: "none", worldId: null });
  close();
});
