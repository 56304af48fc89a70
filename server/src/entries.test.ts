import { randomUUID } from "node:crypto";
import { writeWorld } from "@keen-pebble/core/formats";
import { emptyWorld } from "@keen-pebble/core/world";
import request from "supertest";
import { beforeEach, expect, it } from "vitest";
import type { JournalEntry, NewEntry, RevisionList } from "./api.ts";
import type { TestApplication } from "./test-support/application.ts";
import { withTestApplication } from "./test-support/application.ts";

let test: TestApplication;
let id: string;
withTestApplication((made) => {
  test = made;
});
beforeEach(async () => {
  id = `w-${randomUUID().slice(0, 8)}`;
  await api()
    .post("/api/imports")
    .send({ world: writeWorld(emptyWorld(id, "Well", 16)), logs: {} })
    .expect(200);
});

const api = () => request(test.server);
const FAULT: NewEntry = { kind: "fault", text: "Stops short of the ledge.", log: "round", frame: 37, picture: null };
const png = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+M8AAAMBAQDJ/pLvAAAAAElFTkSuQmCC",
  "base64",
);
const written = async (entry: Partial<NewEntry> = {}): Promise<JournalEntry> =>
  (
    await api()
      .post(`/api/worlds/${id}/entries`)
      .send({ ...FAULT, ...entry })
      .expect(201)
  ).body as JournalEntry;
const listed = async (): Promise<RevisionList> =>
  (await api().get(`/api/worlds/${id}/revisions`).expect(200)).body as RevisionList;
async function rename(name: string, base: number): Promise<void> {
  const step = { kind: "change-parts", parts: [{ part: "name", before: "Well", after: name }] };
  await api()
    .post(`/api/worlds/${id}/revisions`)
    .send({ batch: randomUUID(), base, steps: [step] })
    .expect(201);
}

it("an entry is kept with its log, frame and picture at the newest revision, and stands among the revisions", async () => {
  const first = await written({ picture: png.toString("base64") });
  expect(first).toMatchObject({ kind: "fault", text: FAULT.text, revision: 1, log: "round", frame: 37, picture: true });
  await rename("Dry well", 1);
  const second = await written({ kind: "opinion", text: "  Feels slow.  ", log: null, frame: null });
  expect(second).toMatchObject({ text: "Feels slow.", revision: 2, picture: false });
  expect((await listed()).entries).toEqual([second, first]);
  const picture = await api().get(`/api/worlds/${id}/entries/${first.id}/picture`).expect(200);
  expect(picture.headers["content-type"]).toBe("image/png");
  expect(picture.headers["x-content-type-options"]).toBe("nosniff");
  expect(Buffer.from(picture.body as Buffer).equals(png)).toBe(true);
  await api().get(`/api/worlds/${id}/entries/${second.id}/picture`).expect(404);
});

it("an entry is written anew and deleted; one of another world is not there", async () => {
  const { id: entry } = await written();
  const changed = await api()
    .put(`/api/worlds/${id}/entries/${entry}`)
    .send({ text: "Stops on the ledge." })
    .expect(200);
  expect(changed.body).toMatchObject({ id: entry, text: "Stops on the ledge.", frame: 37 });
  const { id: other } = (await api().post(`/api/worlds/${id}/copy`).send({}).expect(201)).body as { id: string };
  for (const world of [other, "nowhere"]) {
    await api().put(`/api/worlds/${world}/entries/${entry}`).send({ text: "Mine now." }).expect(404);
    await api().delete(`/api/worlds/${world}/entries/${entry}`).expect(404);
    await api().get(`/api/worlds/${world}/entries/${entry}/picture`).expect(404);
  }
  await api().delete(`/api/worlds/${id}/entries/${entry}`).expect(200);
  await api().delete(`/api/worlds/${id}/entries/${entry}`).expect(404);
  expect((await listed()).entries).toEqual([]);
});

it.each([
  ["a kind that there is not", { kind: "praise" }, 400],
  ["no text", { text: "   " }, 400],
  ["a text that is too long", { text: "a".repeat(4001) }, 400],
  ["a frame that is none", { frame: -1 }, 400],
  ["a log that is no id", { log: "../round" }, 400],
  ["a picture that is not base64", { picture: "<svg>" }, 400],
  ["a picture that is no PNG", { picture: Buffer.from("<svg onload=alert(1)>").toString("base64") }, 422],
  ["a picture that is too large", { picture: Buffer.concat([png, Buffer.alloc(1024 * 1024)]).toString("base64") }, 422],
  ["something more", { author: "somebody" }, 400],
])("with %s it is refused, and nothing is kept", async (_what, over, status) => {
  await api()
    .post(`/api/worlds/${id}/entries`)
    .send({ ...FAULT, ...over })
    .expect(status);
  expect((await listed()).entries).toEqual([]);
});

it("the Markdown has entries among the revisions by day, with pictures and what the proofs said; heads stay below its own", async () => {
  await written({ picture: png.toString("base64"), text: "# Ledge\nStops short." });
  await rename("Dry well", 1);
  await written({ kind: "reason", text: "The old name was taken.", log: null, frame: null });
  const { text } = await api().get(`/api/worlds/${id}/journal.md`).expect(200);
  const heads = text.split("\n").filter((line) => /^#+ /.test(line));
  expect(heads).toEqual([
    "# Dry well",
    `## ${new Date().toISOString().slice(0, 10)}`,
    "### Reason, at revision 2",
    "### Revision 2",
    "### Fault, at revision 1, log round, frame 37",
    "#### Ledge",
    "### Revision 1",
  ]);
  expect(text).toContain(`![log round, frame 37](data:image/png;base64,${png.toString("base64")})`);
});
