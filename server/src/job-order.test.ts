import { readFileSync } from "node:fs";
import request from "supertest";
import { expect, it } from "vitest";
import type { Queues } from "./jobs/queue.ts";
import type { TestApplication } from "./test-support/application.ts";
import { demo, demoFolder } from "./test-support/demo-world.ts";
import { withTestApplication } from "./test-support/application.ts";

const round = readFileSync(`${demoFolder}logs/round-the-basin.inputs`, "utf8").replace("world saltglass-cistern\n", "");

let test: TestApplication;
withTestApplication((made) => {
  test = made;
}, false);

/** Brings a world with so many logs in, and puts its proofs into the queue. */
async function worldWith(id: string, logs: number): Promise<void> {
  const texts = Object.fromEntries(
    Array.from({ length: logs }, (_, i) => [`r-${i}`, round.replace("title Round", `title ${i} round`)]),
  );
  await request(test.server)
    .post("/api/imports")
    .send({ world: demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`), logs: texts })
    .expect(200);
  await request(test.server).post(`/api/worlds/${id}/proofs`).expect(202);
}

it("jobs are fair between worlds: each world's first one comes before any world's second, whichever came first", async () => {
  await worldWith("large", 24);
  await worldWith("small", 3);
  const worldOf = async (job: { readonly data: Queues["prove"] }): Promise<string> =>
    (await test.db("worlds").where({ id: job.data.worldId }).first<{ slug: string }>()).slug;
  const order: string[] = [];
  for (;;) {
    const [job] = await test.jobs.queue.take("prove", 1);
    if (job === undefined) break;
    order.push(await worldOf(job));
  }
  // Two logs a job, and one for all play: thirteen of the large one, three of the small one.
  expect(order.slice(0, 4).sort()).toEqual(["large", "large", "small", "small"]);
  expect(order.slice(0, 2).sort()).toEqual(["large", "small"]);
  expect(order.slice(0, 6).filter((world) => world === "small")).toHaveLength(3);
  expect(order.slice(6)).toEqual(Array<string>(10).fill("large"));
});

it("what was not run yet is named: 202 where outcomes are asked for, an error for each log in the JUnit file", async () => {
  await worldWith("waiting", 2);
  const answer = await request(test.server).get("/api/worlds/waiting/outcomes").expect(202);
  expect(answer.body).toEqual({ revision: 1, outcomes: [], missing: ["r-0", "r-1"], reach: [] });
  const { text } = await request(test.server).get("/api/worlds/waiting/junit.xml").expect(200).buffer(true);
  // The world's four reach checks are a job too.
  expect(String(text).match(/was not judged yet; ask again/g)).toHaveLength(4);
  expect(String(text)).toContain('tests="6" failures="4" errors="2"');
  expect(String(text).match(/was not run yet/g)).toHaveLength(2);
});
