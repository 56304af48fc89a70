import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import type { EditStep } from "@keen-pebble/core/edit";
import request from "supertest";
import { describe, expect, it } from "vitest";
import type { BreakSearch, ProofState, RevisionList, WorldOutcomes, WorldProofs, WorldRevision } from "./api.ts";
import { OutcomeRow } from "./models/outcome-row.ts";
import { PendingProofRow } from "./models/pending-proof-row.ts";
import { ProofRunRow } from "./models/proof-run-row.ts";
import { SearchRow } from "./models/search-row.ts";
import type { TestApplication } from "./test-support/application.ts";
import { demo, demoFolder, newId } from "./test-support/demo-world.ts";
import { withTestApplication } from "./test-support/application.ts";
import { followEvents } from "./test-support/follow-events.ts";

const round = readFileSync(`${demoFolder}logs/round-the-basin.inputs`, "utf8").replace("world saltglass-cistern\n", "");
const turn = readFileSync(`${demoFolder}logs/turn-in-time.inputs`, "utf8").replace("world saltglass-cistern\n", "");

let test: TestApplication;
withTestApplication((made) => {
  test = made;
});

const api = () => request(test.server);
const newWorld = async (logs: Record<string, string> = { round, turn }): Promise<string> => {
  const id = newId();
  await api()
    .post("/api/imports")
    .send({ world: demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`), logs })
    .expect(200);
  return id;
};
const { cells } = (JSON.parse(demo) as { rooms: { cells: number[] }[] }).rooms[0]!;
const cellOf = (cell: number): number => cells[cell]!;
const speed = (before: number, after: number): EditStep => ({
  kind: "change-rules",
  rules: "main",
  setting: "glide.speed",
  before,
  after,
});
const wall = (cell: number): EditStep => ({
  kind: "set-cells",
  room: "intake-hall",
  cells: [cell],
  before: [cellOf(cell)],
  after: [4],
});
const store = (id: string, base: number, step: EditStep, note?: string) =>
  api()
    .post(`/api/worlds/${id}/revisions`)
    .send({ batch: randomUUID(), base, steps: [step], ...(note === undefined ? {} : { note }) })
    .expect(201);
/** Asks until the proofs of a world are in that state. */
const stateOf = async (id: string, wanted: ProofState["state"]): Promise<void> => {
  for (let state = ""; state !== wanted;)
    state = ((await api().get(`/api/worlds/${id}/proofs`).expect(200)).body as WorldProofs).proofs.state;
};
const outcomes = async (id: string): Promise<WorldOutcomes> =>
  (await api().get(`/api/worlds/${id}/outcomes`).expect(200)).body as WorldOutcomes;

describe("proofs", () => {
  it("run by themselves after a save, tell how far they are, and keep what each run said", async () => {
    const id = await newWorld();
    const events = await followEvents(test.app, "/api/events");
    const until = async (wanted: Partial<ProofState>): Promise<void> => {
      for (;;) {
        const { event, data } = await events.next();
        if (
          event === "proofs" &&
          (data as { world: string }).world === id &&
          Object.entries(wanted).every(([key, value]) => (data as Record<string, unknown>)[key] === value)
        )
          return;
      }
    };
    await until({ revision: 1, state: "done", done: 2, total: 2, holds: 2 });
    await store(id, 1, speed(2, 3));
    await until({ revision: 2, state: "done", holds: 0 });
    await events.close();
    const { proofs, history } = (await api().get(`/api/worlds/${id}/proofs`).expect(200)).body as WorldProofs;
    expect(proofs).toEqual({ revision: 2, state: "done", done: 2, total: 2, holds: 0 });
    expect(history).toEqual([
      { revision: 1, summary: "brought in from files", logs: { round: "holds", turn: "holds" } },
      { revision: 2, summary: "Main: speed 2 to 3", logs: { round: "breaks", turn: "breaks" } },
    ]);
  });

  it("are not run again for contents that were run before, and a walk that was accepted is told apart", async () => {
    const id = await newWorld({ round });
    await outcomes(id);
    await OutcomeRow.query(test.db)
      .patch({ status: "kept" })
      .whereIn(
        "worldHash",
        test
          .db("proof_runs")
          .join("worlds", "worlds.id", "proof_runs.worldId")
          .where("worlds.slug", id)
          .select("worldHash"),
      );
    await store(id, 1, speed(2, 4));
    expect((await outcomes(id)).outcomes[0]!.status).toBe("playing");
    await store(id, 2, speed(4, 2));
    expect((await outcomes(id)).outcomes[0]!.status).toBe("kept");
    const { logs } = (await api().get(`/api/worlds/${id}`)).body as WorldRevision;
    const accepting = (fingerprint: string) => logs["round"]!.replace("check by", `accept ${fingerprint}\ncheck by`);
    await store(id, 3, { kind: "change-log", log: "round", before: logs["round"]!, after: accepting("0".repeat(64)) });
    const [other] = (await outcomes(id)).outcomes;
    expect(other).toMatchObject({
      holds: true,
      accepted: false,
      fingerprint: expect.stringMatching(/^[0-9a-f]{64}$/) as string,
    });
    await store(id, 4, {
      kind: "change-log",
      log: "round",
      before: accepting("0".repeat(64)),
      after: accepting(other!.fingerprint!),
    });
    expect((await outcomes(id)).outcomes[0]).toMatchObject({ accepted: true, fingerprint: other!.fingerprint });
  });

  it("are taken back while under way, and what is missing is run when they are asked for again", async () => {
    const id = await newWorld(
      Object.fromEntries(
        Array.from({ length: 40 }, (_, i) => [`r-${i}`, round.replace("title Round", `title ${i} round`)]),
      ),
    );
    await api().post(`/api/worlds/${id}/proofs`).expect(202);
    const { state } = (await api().delete(`/api/worlds/${id}/proofs`).expect(200)).body as ProofState;
    // Quick machines may be done by then.
    expect(["cancelled", "done"]).toContain(state);
    expect(
      await PendingProofRow.query(test.db).whereIn("worldId", test.db("worlds").where("slug", id).select("id")),
    ).toEqual([]);
    expect((await outcomes(id)).outcomes).toHaveLength(40);
  });
});

it("outcomes and the JUnit file tell what the world's reach checks come to, also once one fails", async () => {
  const id = await newWorld();
  const { reachChecks } = JSON.parse(demo) as { reachChecks: string[] };
  expect((await outcomes(id)).reach).toEqual(reachChecks.map((check) => ({ check, verdict: "pass", seen: null })));
  // Judged once, by a job: the same world elsewhere has the same outcome.
  const stored = await OutcomeRow.query(test.db).where({ logHash: "all-play" });
  expect(new Set(stored.map(({ worldHash }) => worldHash)).size).toBe(stored.length);
  expect(stored.at(-1)!.reach).toHaveLength(reachChecks.length);
  // The way out of the intake hall is walled up.
  await store(id, 1, wall(9 * 20 + 19));
  const { reach } = await outcomes(id);
  expect(reach.find(({ check }) => check === "winnable")).toEqual({
    check: "winnable",
    verdict: "fail",
    seen: expect.stringContaining("never") as string,
  });
  expect(reach.find(({ check }) => check === "aligned")).toMatchObject({ verdict: "pass" });
  const xml = (await api().get(`/api/worlds/${id}/junit.xml`).expect(200)).text;
  expect(xml).toMatch(/<testcase classname="all play" name="winnable"[^>]*>\s*<failure/);
});

/** What PostgreSQL says where two transactions wait for each other. */
const DEADLOCK = "40P01";

it("what no job is left for has failed, and runs when it is asked for again", async () => {
  const id = await newWorld({ round });
  const { outcomes: known } = await outcomes(id);
  const [run] = await ProofRunRow.query(test.db).whereIn("worldId", test.db("worlds").where("slug", id).select("id"));
  const events = await followEvents(test.app, "/api/events");
  const lost = randomUUID();
  // As a job that ended again and again with its process leaves things; at once, as whoever looks for such may look between.
  const loseOnce = (): Promise<void> =>
    test.db.transaction(async (trx) => {
      await OutcomeRow.query(trx).delete().where("worldHash", run!.worldHash);
      await ProofRunRow.query(trx).findById([run!.worldId, run!.revision]).patch({ state: "running" });
      await PendingProofRow.query(trx)
        .insert({
          worldHash: run!.worldHash,
          logHash: run!.logs["round"]!,
          worldId: run!.worldId,
          jobId: randomUUID(),
        })
        .onConflict()
        .ignore();
    });
  // Whoever looks for what was lost takes the same rows in another order: PostgreSQL ends one of both.
  const lose = async (): Promise<void> => {
    for (;;)
      try {
        return await loseOnce();
      } catch (error) {
        if ((error as { nativeError?: { code?: string } }).nativeError?.code !== DEADLOCK) throw error;
      }
  };
  await lose();
  await SearchRow.query(test.db).insert({
    id: lost,
    worldId: run!.worldId,
    log: "round",
    check: "always aligned",
    state: "running",
    good: null,
    bad: 1,
    found: null,
  });
  const told = new Set<string>();
  while (told.size < 2) {
    const { event, data } = await events.next();
    const { state, search, world } = data as { state?: string; search?: string; world?: string };
    if (state === "failed" || search === lost) told.add(event);
    // A world that was just saved is asked for once more by itself: what that put in is lost again.
    else if (world === id && state === "done" && !told.has("proofs")) await lose();
  }
  await events.close();
  expect((await api().get(`/api/worlds/${id}/searches/${lost}`).expect(200)).body).toMatchObject({ state: "failed" });
  expect((await outcomes(id)).outcomes).toEqual(known);
});

it("a job whose logs were proven by another meanwhile ends, and the run with it", async () => {
  const id = await newWorld();
  const { outcomes: known } = await outcomes(id);
  const [run] = await ProofRunRow.query(test.db).whereIn("worldId", test.db("worlds").where("slug", id).select("id"));
  const { worldId, revision, worldHash } = run!;
  const logs = Object.values(run!.logs);
  expect(logs).toHaveLength(2);
  const job = randomUUID();
  // At once: whoever looks for runs that nobody works on would put in the same rows in between.
  await test.db.transaction(async (trx) => {
    // One of the two is stored already, as when two jobs were asked for it at the same time.
    await OutcomeRow.query(trx).delete().where({ worldHash, logHash: logs[1]! });
    // What is pending before the run, as everybody does: else two could wait for each other.
    await PendingProofRow.query(trx).insert(logs.map((logHash) => ({ worldHash, logHash, worldId, jobId: job })));
    await ProofRunRow.query(trx).findById([worldId, revision]).patch({ state: "running" });
    await test.jobs.queue.put(trx, "prove", [{ id: job, data: { worldId, revision, worldHash, logs }, priority: 0 }]);
  });
  await test.services.signals.tell("jobs");
  await stateOf(id, "done");
  const { rows } = await test.db.raw<{ rows: { state: string; retry_count: number }[] }>(
    "select state, retry_count from pgboss.job where id = ?",
    [job],
  );
  expect(rows).toEqual([{ state: "completed", retry_count: 0 }]);
  expect((await outcomes(id)).outcomes).toEqual(known);
});

it("a run that its job left, though all is known, is found to be over", async () => {
  const id = await newWorld();
  await outcomes(id);
  await ProofRunRow.query(test.db)
    .whereIn("worldId", test.db("worlds").where("slug", id).select("id"))
    .patch({ state: "running", holds: 0 });
  await stateOf(id, "done");
});

it("jobs that nobody wants any more are told whole, however many they are", async () => {
  const heard = new Set<string>();
  const all = Array.from({ length: 1000 }, () => randomUUID());
  const told = new Promise<void>((resolve) => {
    test.services.signals.on("cancelled", (jobs) => {
      for (const job of jobs) heard.add(job);
      if (heard.size === all.length) resolve();
    });
  });
  await test.services.signals.tellCancelled(all);
  await told;
});

it("a world that comes in, and a copy of one, are told as saved, so that pages which show it look again", async () => {
  const events = await followEvents(test.app, "/api/events");
  const saved = async (): Promise<unknown> => {
    for (;;) {
      const { event, data } = await events.next();
      if (event === "saved") return data;
    }
  };
  const id = await newWorld();
  expect(await saved()).toEqual({ world: id, revision: 1 });
  const changed = demo
    .replace('"id": "saltglass-cistern"', `"id": "${id}"`)
    .replace('"frameRate": 60', '"frameRate": 50');
  await api().post("/api/imports").send({ world: changed }).expect(200);
  expect(await saved()).toEqual({ world: id, revision: 2 });
  await events.close();
});

describe("what broke it", () => {
  const ended = async (id: string, search: string): Promise<BreakSearch> => {
    const events = await followEvents(test.app, "/api/events");
    const look = async (): Promise<BreakSearch> =>
      (await api().get(`/api/worlds/${id}/searches/${search}`).expect(200)).body as BreakSearch;
    let found = await look();
    while (found.state === "running") if ((await events.next()).event === "search") found = await look();
    await events.close();
    return found;
  };
  const search = async (id: string, log: string, check: string): Promise<BreakSearch> => {
    const begun = (await api().post(`/api/worlds/${id}/searches`).send({ log, check }).expect(202)).body as BreakSearch;
    return ended(id, begun.id);
  };

  it("names the first revision at which a check fails, and what that did", async () => {
    const id = await newWorld({ round });
    // Away from the walk, but for the thirteenth one, which stands in its way.
    const away = [33, 34, 35, 36, 53, 54, 55, 56, 57, 73, 74, 76, 77];
    let base = 1;
    for (const cell of away.slice(0, 8)) await store(id, base++, wall(cell));
    await store(id, base++, wall(4 + 7 * 20));
    const broken = base;
    for (const cell of away.slice(8)) await store(id, base++, wall(cell));
    expect(await search(id, "round", "by 72 cell 4 3")).toMatchObject({
      state: "found",
      good: broken - 1,
      bad: broken,
      found: { revision: broken, summary: "Intake hall: 1 cell", frame: 72, seen: "cell 4 8" },
    });
    expect(await search(id, "round", "always aligned")).toMatchObject({ state: "holds" });
    expect(await search(id, "round", "always still")).toMatchObject({ state: "never-held" });
  });

  it("is asked of an `until` line that ran out too; of one that is none it says what was expected", async () => {
    const id = await newWorld({ up: "keen-pebble-inputs 1\ntitle Up\n---\n200 U until cell 4 3\n" });
    await store(id, 1, wall(33));
    await store(id, 2, wall(4 + 7 * 20));
    expect(await search(id, "up", "until cell 4 3")).toMatchObject({
      state: "found",
      check: "until cell 4 3",
      found: { revision: 3, summary: "Intake hall: 1 cell" },
    });
    const refused = await api().post(`/api/worlds/${id}/searches`).send({ log: "up", check: "until nowhere 3" });
    expect([refused.status, (refused.body as { detail: string }).detail]).toEqual([
      expect.any(Number),
      expect.stringContaining("nowhere") as string,
    ]);
    expect(refused.status).toBeGreaterThanOrEqual(400);
  });

  it("looks before the revision that it was asked of, though the fault was mended and proven while it waited", async () => {
    const id = await newWorld({ round });
    await outcomes(id);
    await store(id, 1, wall(33));
    await store(id, 2, speed(2, 4));
    await store(id, 3, wall(34));
    await store(id, 4, speed(4, 2));
    expect((await outcomes(id)).outcomes).toMatchObject([{ holds: true }]);
    // As one that was asked for at revision 4, and is taken up only now.
    const late = randomUUID();
    const { id: worldId } = (await test.db<{ id: number; slug: string }>("worlds").where("slug", id).first())!;
    await test.db.transaction(async (trx) => {
      await SearchRow.query(trx).insert({
        id: late,
        worldId,
        log: "round",
        check: "end cell 16 9",
        state: "running",
        good: null,
        bad: 4,
        found: null,
      });
      await trx.raw("insert into pgboss.job (id, name, data) values (?, 'search', ?)", [
        late,
        JSON.stringify({ search: late }),
      ]);
    });
    expect(await ended(id, late)).toMatchObject({
      state: "found",
      good: 2,
      bad: 3,
      found: { revision: 3, summary: "Main: speed 2 to 4" },
    });
  });

  it("looks from where the log came in, and refuses what is no check", async () => {
    const id = await newWorld({ turn });
    await store(id, 1, { kind: "add-log", log: "late", text: round });
    await store(id, 2, speed(2, 4));
    await store(id, 3, wall(33));
    expect(await search(id, "late", "end cell 16 9")).toMatchObject({
      state: "found",
      found: { revision: 3, summary: "Main: speed 2 to 4" },
    });
    await api().post(`/api/worlds/${id}/searches`).send({ log: "late", check: "soon aligned" }).expect(422);
    await api().post(`/api/worlds/${id}/searches`).send({ log: "never", check: "always aligned" }).expect(404);
  });
});

it("the journal lists revisions with their notes and what the proofs said, and gives each back as it was", async () => {
  const id = await newWorld({ round });
  await store(id, 1, speed(2, 4), "Felt too slow.");
  await outcomes(id);
  const { revisions, before } = (await api().get(`/api/worlds/${id}/revisions`).expect(200)).body as RevisionList;
  expect(before).toBeNull();
  expect(revisions).toMatchObject([
    {
      revision: 2,
      summary: "Main: speed 2 to 4",
      note: "Felt too slow.",
      proofs: { state: "done", total: 1, holds: 0 },
    },
    { revision: 1, summary: "brought in from files", note: null },
  ]);
  await api()
    .put(`/api/worlds/${id}/revisions/1/note`)
    .send({ note: " As it came. \n" })
    .expect(200, { note: "As it came." });
  expect((await api().get(`/api/worlds/${id}/journal.md`).expect(200)).text).toContain(
    "Main: speed 2 to 4\n\n0 of 1 log holds.\n\nFelt too slow.",
  );
  const first = (await api().get(`/api/worlds/${id}/revisions/1`).expect(200)).body as {
    world: { rules: { glide: { speed: number } }[] };
  };
  expect(first.world.rules[0]!.glide.speed).toBe(2);
  await api().get(`/api/worlds/${id}/revisions/3`).expect(404);
  await api()
    .get(`/api/worlds/${id}/revisions?before=2`)
    .expect(200)
    .expect(/As it came/);
  await api().get(`/api/worlds/${id}/revisions?before=soon`).expect(400);
  await api().put(`/api/worlds/${id}/revisions/9/note`).send({ note: "x" }).expect(404);
});
