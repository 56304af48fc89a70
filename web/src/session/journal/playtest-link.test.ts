import type { PlaytestLink } from "@keen-pebble/server/api";
import { afterEach, beforeEach, expect, it } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import type { Opened } from "../../test-support/opened.ts";
import { openHere, problem, until } from "../../test-support/opened.ts";

const OFF: PlaytestLink = { on: false, address: null, fault: null, received: 0, most: 200 };
const ON: PlaytestLink = { ...OFF, on: true, address: "http://127.0.0.1:4871/play/a" };

let opened: Opened;
/** Each lets the server answer one that asked how the link stands, in their order. */
let answers: ((link: PlaytestLink) => void)[];

beforeEach(async () => {
  answers = [];
  const waits = (): Promise<Response> => new Promise((resolve) => answers.push((link) => resolve(Response.json(link))));
  opened = await openHere(hall(), {}, [
    ["GET /worlds/hall/playtest", waits],
    ["PUT /worlds/hall/playtest", () => Response.json(ON)],
  ]);
});
afterEach(() => opened.close());

const shown = (): PlaytestLink | null => session.playtestLink.store.getState().link;

it("how the link stood before it was switched takes nothing back, whenever that is answered; what is asked later counts", async () => {
  const first = session.playtestLink.read();
  answers[0]!(OFF);
  await first;
  expect(shown()).toEqual(OFF);

  const before = session.playtestLink.read();
  const switching = session.playtestLink.switch(true);
  const meanwhile = session.playtestLink.read();
  await switching;
  expect(shown()).toEqual(ON);
  answers[1]!(OFF);
  answers[2]!(OFF);
  await Promise.all([before, meanwhile]);
  expect(shown()).toEqual(ON);

  const later = session.playtestLink.read();
  answers[3]!({ ...ON, received: 3 });
  await later;
  expect(shown()).toMatchObject({ on: true, received: 3 });
});

it("a link that could not be switched stays as it was, and that is said", async () => {
  const first = session.playtestLink.read();
  answers[0]!(OFF);
  await first;
  opened.answers.set("PUT /worlds/hall/playtest", () => problem(503, "no-database", "the database does not answer"));
  await session.playtestLink.switch(true);
  expect(shown()).toEqual(OFF);
  await until(() => session.project.store.getState().notice?.text.includes("It is as it was."));
});
