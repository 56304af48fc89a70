import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";
import type { TestSuites } from "junit2json";
import { parse } from "junit2json";
import { expect, it } from "vitest";
import { demo, file, folder, keenPebble, logs, painted, read, root, turn } from "./test-support/keen-pebble.ts";

const three = ["against-the-block", "round-the-basin", "turn-in-time"].map((name) => path.join(logs, `${name}.inputs`));

it("verify says that the demo's logs hold, and which frame breaks with a wall in the way", async () => {
  expect(await keenPebble("verify", "--no-reach", demo, logs)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("25 of 25 logs hold") as string,
  });
  const broken = await keenPebble("verify", "--no-reach", painted(4, 7, 3), ...three);
  expect(broken.status).toBe(1);
  expect(broken.stdout).toContain("fails at frame 72: by 72 cell 4 3; seen: cell 4 8");
  expect(broken.stdout).toContain("2 of 3 logs hold");
});

it("verify --json is one value with an entry a log; a log that cannot be read is an entry too", async () => {
  const bad = file("bad.inputs", "keen-pebble-inputs 1\n---\nR\n");
  const { status, stdout } = await keenPebble(
    "verify",
    "--no-reach",
    demo,
    path.join(logs, "turn-in-time.inputs"),
    bad,
    "--json",
  );
  expect(status).toBe(2);
  expect(JSON.parse(stdout)).toMatchObject([
    {
      holds: true,
      frames: 48,
      fingerprint: expect.stringMatching(/^[0-9a-f]{64}$/) as string,
      checks: [
        { check: "at 24 cell 7 12", verdict: "pass", frame: 24, seen: null },
        {},
        {},
        { check: "never status escaped", law: true },
      ],
    },
    { log: bad, error: expect.stringMatching(/^line 3: line: expected `COUNT KEYS`/) as string },
  ]);
});

it("verify --junit writes a file that a JUnit parser reads: checks as cases, a log that cannot be read as an error", async () => {
  const out = path.join(folder, "out.xml");
  const bad = file("odd & <bad>.inputs", "keen-pebble-inputs 1\n---\nR\n");
  expect((await keenPebble("verify", "--no-reach", painted(4, 7, 3), ...three, bad, "--junit", out)).status).toBe(2);
  const suites = (await parse(readFileSync(out, "utf8"))) as TestSuites;
  expect(suites).toMatchObject({ tests: 16, failures: 2, errors: 1 });
  const cases = suites.testsuite!.flatMap((suite) => suite.testcase!.map((test) => ({ suite: suite.name, ...test })));
  const failed = cases.filter((test) => test.failure);
  expect(failed.map(({ name, failure }) => `${name}: ${failure![0]!.message}`)).toEqual([
    "by 72 cell 4 3: fails at frame 72; seen: cell 4 8",
    "end cell 16 9: fails at frame 238; seen: cell 5 14",
  ]);
  expect(failed[0]).toMatchObject({
    suite: path.join(logs, "round-the-basin.inputs"),
    classname: path.join(logs, "round-the-basin.inputs"),
  });
  expect(cases.filter((test) => test.error)).toMatchObject([
    { suite: bad, error: [{ message: expect.stringMatching(/^line 3: line: expected/) as string }] },
  ]);
});

it("verify says whether a log walks as was accepted, and takes many logs side by side in the order in which they were named", async () => {
  const text = readFileSync(path.join(root, three[2]!), "utf8");
  const { fingerprint } = JSON.parse((await keenPebble("replay", demo, three[2]!, "--json")).stdout) as {
    fingerprint: string;
  };
  const accepting = (print: string): string =>
    file(`accepted-${print.slice(0, 4)}.inputs`, text.replace("check at 24", `accept ${print}\ncheck at 24`));
  const [same, other] = [accepting(fingerprint), accepting("0".repeat(64))];
  expect(await keenPebble("verify", "--no-reach", demo, same, other)).toMatchObject({
    status: 0,
    stdout: expect.stringMatching(/walks as accepted\n.*does not walk as accepted\n2 of 2/) as string,
  });
  expect(JSON.parse((await keenPebble("verify", "--no-reach", demo, same, other, "--json")).stdout)).toMatchObject([
    { accepted: true, fingerprint },
    { accepted: false, fingerprint },
  ]);
  // Enough frames for threads.
  const long = Array.from({ length: 12 }, (_, i) =>
    file(
      `long-${i}.inputs`,
      `keen-pebble-inputs 1\ncheck at ${50_000 + i} status playing\n---\n${60_000 + i} ${"LRUD"[i % 4]!}\n`,
    ),
  );
  const reports = JSON.parse(
    (await keenPebble("verify", "--no-reach", demo, ...long, file("bad-again.inputs", "?"), "--json")).stdout,
  ) as {
    log: string;
    frames?: number;
    error?: string;
  }[];
  expect(reports.map(({ log }) => log)).toEqual([...long, path.join(folder, "bad-again.inputs")]);
  expect(reports.slice(0, 12).map(({ frames }) => frames)).toEqual(long.map((_, i) => 60_000 + i));
});

it("results are printed also where the JUnit file cannot be written", async () => {
  const { status, stdout, stderr } = await keenPebble(
    "verify",
    demo,
    turn,
    "--junit",
    path.join(folder, "no-folder", "out.xml"),
  );
  expect([status, stdout.includes("1 of 1 logs hold"), stderr]).toEqual([
    2,
    true,
    expect.stringContaining("out.xml cannot be written") as string,
  ]);
});

it("verify takes a folder's CSV logs too, and says of a log that it names another world", async () => {
  const inside = mkdtempSync(path.join(folder, "logs-"));
  writeFileSync(path.join(inside, "pressed.csv"), "KEYS,Frame\r\nru,1\r\n.,9\r\n");
  writeFileSync(path.join(inside, "other.inputs"), read(turn).replace("world saltglass-cistern", "world dry-well"));
  const { status, stdout } = await keenPebble("verify", "--no-reach", demo, inside);
  expect(status).toBe(0);
  expect(stdout).toContain("2 of 2 logs hold");
  expect(stdout).toContain(
    "other.inputs: 4 of 4 checks, 48 frames\n       finding: names the world dry-well, not saltglass-cistern\n",
  );
  const [other, pressed] = JSON.parse((await keenPebble("verify", "--no-reach", demo, inside, "--json")).stdout) as {
    finding?: string;
  }[];
  expect([other!.finding, "finding" in pressed!]).toEqual(["names the world dry-well, not saltglass-cistern", false]);
});
