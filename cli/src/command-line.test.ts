import { spawnSync } from "node:child_process";
import {
  closeSync,
  lstatSync,
  mkdtempSync,
  openSync,
  readFileSync,
  readdirSync,
  readlinkSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from "node:fs";
import os from "node:os";
import path from "node:path";
import type { TestSuites } from "junit2json";
import { parse } from "junit2json";
import { afterAll, beforeAll, expect, it } from "vitest";

const root = path.resolve(import.meta.dirname, "../..");
const demo = "demo/saltglass-cistern/saltglass-cistern.world.json";
const logs = "demo/saltglass-cistern/logs";
const three = ["against-the-block", "round-the-basin", "turn-in-time"].map((name) => path.join(logs, `${name}.inputs`));
let folder = "";

beforeAll(() => {
  folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-cli-"));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Runs the built command in the checkout, as a user would. */
function keenPebble(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["cli/bin/keen-pebble.js", ...args], {
    cwd: root,
    encoding: "utf8",
  });
  return { status, stdout, stderr };
}

function file(name: string, text: string): string {
  const at = path.join(folder, name);
  writeFileSync(at, text);
  return at;
}

/** The demo with one tile put on a cell of its room. */
function painted(x: number, y: number, tile: number): string {
  const world = JSON.parse(readFileSync(path.join(root, demo), "utf8")) as {
    rooms: { width: number; cells: number[] }[];
  };
  world.rooms[0]!.cells[y * world.rooms[0]!.width + x] = tile;
  return file("painted.world.json", JSON.stringify(world));
}

it("verify says that the demo's logs hold, and which frame breaks with a wall in the way", () => {
  expect(keenPebble("verify", "--no-reach", demo, logs)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("22 of 22 logs hold") as string,
  });
  const broken = keenPebble("verify", "--no-reach", painted(4, 7, 3), ...three);
  expect(broken.status).toBe(1);
  expect(broken.stdout).toContain("fails at frame 72: by 72 cell 4 3; seen: cell 4 8");
  expect(broken.stdout).toContain("2 of 3 logs hold");
});

it("verify --json is one value with an entry a log; a log that cannot be read is an entry too", () => {
  const bad = file("bad.inputs", "keen-pebble-inputs 1\n---\nR\n");
  const { status, stdout } = keenPebble(
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

it("replay prints status, last frame and fingerprint, and writes the trace whose bytes it is of", () => {
  const out = path.join(folder, "trace.csv");
  const { status, stdout } = keenPebble("replay", demo, path.join(logs, "against-the-block.inputs"), "--trace", out);
  expect(status).toBe(0);
  expect(stdout).toMatch(/^status playing\nlast frame 58\nfingerprint [0-9a-f]{64}\n$/);
  const rows = readFileSync(out, "utf8").split("\r\n");
  expect(rows.slice(0, 2)).toEqual([
    "frame,keys,room,x,y,cx,cy,facing,pose,moving,aligned,status,events",
    "0,.,intake-hall,16384,49152,4,12,up,0,0,1,playing,",
  ]);
  expect(rows[10]).toBe("9,L,intake-hall,16384,45056,4,11,left,2,0,1,playing,bump");
  const digest = spawnSync("sha256sum", [out], { encoding: "utf8" }).stdout.slice(0, 64);
  expect(stdout).toContain(digest);
});

it("check prints what it refuses with its place, and exits 1; findings only count with --strict", () => {
  expect(keenPebble("check", demo)).toMatchObject({ status: 0 });
  const text = readFileSync(path.join(root, demo), "utf8");
  const refused = keenPebble("check", file("refused.world.json", text.replace('"gait": "glide"', '"gait": "stroll"')));
  expect(refused.status).toBe(1);
  expect(refused.stdout).toMatch(
    /refused: line \d+, column \d+: rules\[0\]\.gait: must be one of hop, glide, roam, drift, found "stroll"/,
  );
  const odd = file("odd.world.json", text.replace('"speed": 2, "arrive": "land"', '"speed": 3, "arrive": "past"'));
  expect(keenPebble("check", odd)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("rules[0].glide.speed: 3 px does not divide 16: 16 = 5 x 3 + 1") as string,
  });
  expect(keenPebble("check", odd, "--strict").status).toBe(1);
});

it("one clear line and exit 2 for files that are not there and options that do not exist", () => {
  for (const args of [
    ["verify", "nowhere.world.json", logs],
    ["verify", demo, "nowhere"],
    ["verify", demo, "demo"],
    ["check", demo, "--fast"],
    ["stroll"],
  ]) {
    const { status, stdout, stderr } = keenPebble(...args);
    expect({ args, status, stdout, lines: stderr.trim().split("\n").length }).toEqual({
      args,
      status: 2,
      stdout: "",
      lines: 1,
    });
  }
  const half = keenPebble(
    "replay",
    demo,
    path.join(logs, "turn-in-time.inputs"),
    "--trace",
    path.join(folder, "no-folder", "t.csv"),
  );
  expect(half).toMatchObject({ status: 2, stderr: expect.stringContaining("cannot be written") as string });
});

it("a log that sets up what the world does not have is refused by name", () => {
  const log = file("set-up.inputs", "keen-pebble-inputs 1\nwith open sluice-9\n---\n1 R\n");
  expect(keenPebble("replay", demo, log)).toMatchObject({
    status: 1,
    stdout: "",
    stderr: "keen-pebble: `with open` in a log names fixture sluice-9, which this world does not have\n",
  });
});

it("verify --junit writes a file that a JUnit parser reads: checks as cases, a log that cannot be read as an error", async () => {
  const out = path.join(folder, "out.xml");
  const bad = file("odd & <bad>.inputs", "keen-pebble-inputs 1\n---\nR\n");
  expect(keenPebble("verify", "--no-reach", painted(4, 7, 3), ...three, bad, "--junit", out).status).toBe(2);
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

it("a flat log and a log out of CSV press the same, and compare says so or names the first row that differs", () => {
  const until = file(
    "until.inputs",
    "keen-pebble-inputs 1\nstart intake-hall 4 12 up\n---\n72 U\n300 R until cell 8 3\n9 .\n",
  );
  const [flat, trace, again, other] = ["flat.inputs", "a.csv", "b.csv", "c.csv"].map((name) =>
    path.join(folder, name),
  ) as [string, string, string, string];
  const first = keenPebble("replay", demo, until, "--trace", trace, "--flat", flat, "--json");
  expect(JSON.parse(first.stdout)).toEqual({
    status: "playing",
    frames: 109,
    fingerprint: expect.stringMatching(/^[0-9a-f]{64}$/) as string,
  });
  expect(readFileSync(flat, "utf8")).toContain("---\n72 U\n28 R\n9 .\n");
  expect(keenPebble("replay", demo, flat, "--trace", again).stdout).toContain(
    (JSON.parse(first.stdout) as { fingerprint: string }).fingerprint,
  );
  expect(keenPebble("compare", trace, again)).toMatchObject({ status: 0, stdout: "equal\n" });

  const csv = file("pressed.csv", "frame,keys\n1,U\n73,R\n103,.\n110,.\n");
  keenPebble("replay", demo, csv, "--trace", other);
  const different = keenPebble("compare", trace, other);
  expect(different.status).toBe(1);
  expect(different.stdout).toBe("differs at frame 101\n  keys: . and R\n");
  expect(JSON.parse(keenPebble("compare", trace, other, "--json").stdout)).toEqual({
    equal: false,
    frame: 101,
    columns: [{ column: "keys", a: ".", b: "R" }],
    missing: null,
  });
  expect(keenPebble("compare", trace, csv)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining("pressed.csv is refused: line 1: header: lacks the column room, x, y") as string,
  });
});

it("import takes maps as other programs have them: numbers in a source file, a sheet for them, a flat array, a picture", () => {
  const elsewhere = path.resolve(import.meta.dirname, "../../demo/from-elsewhere");
  const out = path.join(folder, "pump-hall.world.json");
  const json = (): {
    tiles: { id: string; flags: string[]; look: object }[];
    rooms: { id: string }[];
    sheets: object[];
  } => JSON.parse(readFileSync(out, "utf8")) as ReturnType<typeof json>;
  const source = path.join(elsewhere, "pump_hall.c");
  const sheet = path.join(elsewhere, "tiles.png");
  expect(keenPebble("import", source, "--sheet", sheet, "--solid", "1,3-4", "--out", out)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("pump-hall 30x20, 7 tiles, start pump-hall 14 9") as string,
  });
  expect(json().tiles.map(({ id, flags }) => `${id} ${flags.join()}`)).toEqual([
    "empty ",
    "tile-1 solid",
    "tile-2 ",
    "tile-3 solid",
    "tile-5 ",
    "tile-4 solid",
    "tile-6 ",
  ]);
  expect(json().tiles[3]).toMatchObject({ look: { sheet: "tiles", at: [2, 0] } });
  expect(readFileSync(path.join(folder, "tiles.png"))).toEqual(readFileSync(sheet));
  expect(keenPebble("check", out).status).toBe(0);

  const flat = file("flat.js", "const map = [1,1,1, 1,-1,1, 1,1,1];");
  expect(keenPebble("import", flat, "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("is one list of 9 numbers: say how many cells a row has") as string,
  });
  expect(keenPebble("import", flat, "--width", "3", "--empty", "-1", "--solid", "1", "--out", out).stdout).toContain(
    "flat 3x3, 2 tiles, start flat 1 1",
  );

  expect(
    keenPebble("import", path.join(elsewhere, "overflow_map.png"), "--map-picture", "--out", out).stdout,
  ).toContain("overflow-map 50x38, 61 tiles");
  expect(json().sheets).toMatchObject([{ file: "pump-hall-overflow-map.png", tile: 16 }]);
  expect(keenPebble("import", source, "--out", out, "--solid", "a").stderr).toBe(
    'keen-pebble: --solid: expected numbers and ranges such as 3,5,7-9, found "a"\n',
  );
  writeFileSync(path.join(folder, "tiles.png"), readFileSync(path.join(elsewhere, "overflow_map.png")));
  expect(keenPebble("import", source, "--sheet", sheet, "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("tiles.png is another picture of that name; it is left as it is") as string,
  });
  expect(keenPebble("import", source, "--out", "-", "--sheet", sheet)).toMatchObject({
    status: 2,
    stderr: "keen-pebble: --sheet puts a picture beside the world; give --out a file\n",
  });
});

it("text and table print a room, import makes a world of such files again: the same cells, the same walk", () => {
  const text = keenPebble("text", demo, "intake-hall");
  expect(text.stdout.split("\n")[0]).toHaveLength(20);
  const table = keenPebble("table", demo, "intake-hall");
  const room = file("intake-hall.room.txt", text.stdout);
  const out = path.join(folder, "made.world.json");
  expect(keenPebble("import", room, "--out", out)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("intake-hall 20x16") as string,
  });
  expect(keenPebble("text", out, "intake-hall").stdout.split("\n").slice(0, 16)).toEqual(
    text.stdout.split("\n").slice(0, 16),
  );
  expect(keenPebble("verify", "--no-reach", out, path.join(logs, "turn-in-time.inputs")).stdout).toContain("holds");
  const again = path.join(folder, "again.world.json");
  expect(keenPebble("import", file("hall.csv", table.stdout), room, "--out", again, "--tile-size", "8")).toMatchObject({
    status: 0,
  });
  expect(keenPebble("table", again, "hall").stdout).toBe(table.stdout);

  expect(keenPebble("import", file("odd.room.txt", "##x\n\n# = tile rock"), "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('odd.room.txt is refused: line 1, column 3: nothing explains "x"') as string,
  });
  expect(keenPebble("import", file("no.png", "GIF"), "--out", out)).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("no.png is refused: is no PNG") as string,
  });
  expect(keenPebble("import", room, "--out", out, "--tile-size", "3").stderr).toContain(
    "--tile-size: must be a whole number from 4 to 128, found 3",
  );
  expect(keenPebble("text", demo, "attic")).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("has no room attic; it has intake-hall") as string,
  });
});

it("wander finds a broken law, writes the shrunk walk as a log, and the same seed finds the same; whole worlds have none", () => {
  expect(keenPebble("wander", demo, "--runs", "300", "--frames", "600")).toMatchObject({
    status: 0,
    stdout: "300 walks of at most 600 frames under main: no law broken\n",
  });
  const odd = file(
    "odd-speed.world.json",
    readFileSync(path.join(root, demo), "utf8").replace(
      '"speed": 2, "arrive": "land"',
      '"speed": 3, "arrive": "equal"',
    ),
  );
  const out = path.join(folder, "found.inputs");
  const found = keenPebble("wander", odd, "--runs", "200", "--seed", "5", "--out", out);
  expect(found).toMatchObject({
    status: 1,
    stdout: expect.stringMatching(
      /^broken in frame \d+: is on a leg that never ends; seed \d+, shrunk from \d+ frames$/m,
    ) as string,
  });
  expect(keenPebble("wander", odd, "--runs", "200", "--seed", "5").stdout).toBe(found.stdout);
  expect(keenPebble("verify", "--no-reach", odd, out)).toMatchObject({
    status: 1,
    stdout: expect.stringContaining("always aligned; seen:") as string,
  });
  expect(JSON.parse(keenPebble("wander", odd, "--runs", "20", "--json").stdout)).toMatchObject([
    { law: "is on a leg that never ends", log: expect.stringContaining("keen-pebble-inputs 1") as string },
  ]);
  expect(keenPebble("wander", demo, "--runs", "none")).toMatchObject({
    status: 2,
    stdout: "",
    stderr: "keen-pebble: --runs must be a whole number from 1 to 10000000, found none\n",
  });
});

it("verify says whether a log walks as was accepted, and takes many logs side by side in the order in which they were named", () => {
  const text = readFileSync(path.join(root, three[2]!), "utf8");
  const { fingerprint } = JSON.parse(keenPebble("replay", demo, three[2]!, "--json").stdout) as { fingerprint: string };
  const accepting = (print: string): string =>
    file(`accepted-${print.slice(0, 4)}.inputs`, text.replace("check at 24", `accept ${print}\ncheck at 24`));
  const [same, other] = [accepting(fingerprint), accepting("0".repeat(64))];
  expect(keenPebble("verify", "--no-reach", demo, same, other)).toMatchObject({
    status: 0,
    stdout: expect.stringMatching(/walks as accepted\n.*does not walk as accepted\n2 of 2/) as string,
  });
  expect(JSON.parse(keenPebble("verify", "--no-reach", demo, same, other, "--json").stdout)).toMatchObject([
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
    keenPebble("verify", "--no-reach", demo, ...long, file("bad-again.inputs", "?"), "--json").stdout,
  ) as {
    log: string;
    frames?: number;
    error?: string;
  }[];
  expect(reports.map(({ log }) => log)).toEqual([...long, path.join(folder, "bad-again.inputs")]);
  expect(reports.slice(0, 12).map(({ frames }) => frames)).toEqual(long.map((_, i) => 60_000 + i));
});

it("what it writes goes through links and into devices and pipes, and replaces nothing but ordinary files", () => {
  const log = three[0]!;
  const plain = path.join(folder, "plain.csv");
  expect(keenPebble("replay", demo, log, "--trace", plain).status).toBe(0);
  const trace = readFileSync(plain, "utf8");
  const fresh = (name: string): string => path.join(folder, name);

  // A link stays one, and what it leads to is written whole.
  const target = file("target.csv", "old");
  symlinkSync("target.csv", fresh("link.csv"));
  expect(keenPebble("replay", demo, log, "--trace", fresh("link.csv")).status).toBe(0);
  expect([readlinkSync(fresh("link.csv")), readFileSync(target, "utf8")]).toEqual(["target.csv", trace]);
  symlinkSync("made.csv", fresh("dangling.csv"));
  expect(keenPebble("replay", demo, log, "--trace", fresh("dangling.csv")).status).toBe(0);
  expect([readlinkSync(fresh("dangling.csv")), readFileSync(fresh("made.csv"), "utf8")]).toEqual(["made.csv", trace]);

  // Devices and pipes are written to and stay what they are.
  expect(spawnSync("mkfifo", [fresh("pipe")]).status).toBe(0);
  // Open at both ends, so that nobody waits for the other.
  const pipe = openSync(fresh("pipe"), "r+");
  expect(keenPebble("replay", demo, log, "--flat", fresh("pipe")).status).toBe(0);
  closeSync(pipe);
  expect(lstatSync(fresh("pipe")).isFIFO()).toBe(true);
  expect(keenPebble("replay", demo, log, "--trace", "/dev/null").status).toBe(0);
  expect(statSync("/dev/null").isCharacterDevice()).toBe(true);
  for (const out of ["/dev/stdout", "-"]) {
    const { status, stdout } = keenPebble("replay", demo, log, "--trace", out);
    expect(status).toBe(0);
    expect(stdout).toContain(trace);
  }
  expect(lstatSync("/dev/stdout").isSymbolicLink()).toBe(true);
  expect(keenPebble("replay", demo, log, "--trace", "/dev/full")).toMatchObject({
    status: 2,
    stderr: "keen-pebble: /dev/full cannot be written: ENOSPC\n",
  });

  // What lies beside under the name of a half-written file is somebody else's.
  const other = file("plain.csv.part", "mine");
  expect(keenPebble("replay", demo, log, "--trace", plain).status).toBe(0);
  expect(keenPebble("replay", demo, log, "--trace", path.join(folder, "nowhere", "plain.csv")).status).toBe(2);
  expect(readFileSync(other, "utf8")).toBe("mine");
  expect(readdirSync(folder).filter((name) => name.startsWith("."))).toEqual([]);
});

it("worlds, logs, rooms and items may be called like what every object has", () => {
  const world = JSON.parse(readFileSync(path.join(root, demo), "utf8")) as {
    id: string;
    name: string;
    items: { id: string; name: string }[];
    rooms: { id: string; name: string }[];
  };
  world.name = "__proto__";
  world.rooms[1]!.name = "toString";
  const text = JSON.stringify({ ...world, id: "constructor" })
    .replaceAll(`"${world.items[0]!.id}"`, '"valueof"')
    .replaceAll(`"${world.rooms[1]!.id}"`, '"constructor"');
  const odd = file("constructor.world.json", text);
  const log = file(
    "constructor.inputs",
    "keen-pebble-inputs 1\nworld constructor\ntitle __proto__\ntag toString\nnote hasOwnProperty\ncheck never room constructor\ncheck never holds valueof 9\n---\n4 .\n",
  );
  expect(keenPebble("check", odd).status).toBe(0);
  expect(keenPebble("verify", "--no-reach", odd, log)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("1 of 1 log") as string,
  });
  expect(keenPebble("text", odd, "constructor").status).toBe(0);
  expect(keenPebble("text", odd, "valueof")).toMatchObject({
    status: 1,
    stderr: expect.stringContaining("has no room valueof") as string,
  });
  expect(keenPebble("replay", odd, log, "--rules", "constructor").stderr).toMatch(/constructor/);
});

/** Runs it with something on its standard input. */
function piped(input: string, ...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["cli/bin/keen-pebble.js", ...args], {
    cwd: root,
    encoding: "utf8",
    input,
  });
  return { status, stdout, stderr };
}
const turn = path.join(logs, "turn-in-time.inputs");
const read = (name: string): string => readFileSync(path.resolve(root, name), "utf8");

it("says its version", () => {
  const { version } = JSON.parse(read("cli/package.json")) as { version: string };
  expect(keenPebble("--version")).toEqual({ status: 0, stdout: `${version}\n`, stderr: "" });
});

it("`-` is standard input, whatever it holds, and standard output, with what is said beside it", () => {
  expect(piped(read(demo), "check", "-")).toMatchObject({ status: 0 });
  expect(piped(read(turn), "replay", demo, "-").stdout).toBe(keenPebble("replay", demo, turn).stdout);
  expect(piped("frame,keys\n1,U\n9,.\n", "replay", demo, "-").stdout).toContain("last frame 9\n");
  const trace = piped(read(turn), "replay", demo, "-", "--trace", "-");
  expect([trace.stdout.split("\r\n")[0], trace.stderr]).toEqual([
    "frame,keys,room,x,y,cx,cy,facing,pose,moving,aligned,status,events",
    expect.stringContaining("status playing") as string,
  ]);
  const made = piped(
    "####\n#S #\n####\n\n# = tile wall flags=solid\nS = start on floor\n",
    "import",
    "-",
    "--out",
    "-",
  );
  expect(made.status).toBe(0);
  expect(piped(made.stdout, "check", "-")).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("nothing to say against it") as string,
  });
  expect(piped("0,1\n1,0\n", "import", "-", "--out", "-").stdout).toContain('"width": 2, "height": 2');
  // There is one standard input, and two things on standard output could not be told apart.
  expect(piped(read(demo), "replay", "-", "-")).toMatchObject({
    status: 2,
    stderr: expect.stringContaining("standard input") as string,
  });
  expect(keenPebble("replay", demo, turn, "--json", "--trace", "-")).toMatchObject({
    status: 2,
    stdout: "",
    stderr: "keen-pebble: --json and --trace - both write to standard output; give one of them a file\n",
  });
});

it("a reader that goes away ends the output, and a full disk is one line and exit 2, both without a stack trace", () => {
  const shell = (command: string) => spawnSync("bash", ["-c", command], { cwd: root, encoding: "utf8" });
  const piecewise = shell(
    `set -o pipefail; node cli/bin/keen-pebble.js replay ${demo} ${logs}/11-patrol-of-the-intake-hall.inputs --trace - 2>/dev/null | head -1`,
  );
  expect(piecewise.stdout.startsWith("frame,keys")).toBe(true);
  for (const command of [
    `replay ${demo} ${turn} --trace -`,
    `verify ${demo} ${logs}`,
    `verify ${demo} ${logs} --json`,
    `text ${demo} intake-hall`,
  ]) {
    const gone = shell(`node cli/bin/keen-pebble.js ${command} | true; echo "exit \${PIPESTATUS[0]}"`);
    expect({ command, out: gone.stdout, trace: gone.stderr.includes("    at ") }).toEqual({
      command,
      out: "exit 0\n",
      trace: false,
    });
    const full = shell(`node cli/bin/keen-pebble.js ${command} > /dev/full; echo "exit $?" >&2`);
    expect({ command, said: full.stderr.replace(/^(status|last frame|fingerprint) .*\n/gm, "") }).toEqual({
      command,
      said: "keen-pebble: standard output cannot be written: ENOSPC\nexit 2\n",
    });
  }
});

it("results are printed also where the JUnit file cannot be written", () => {
  const { status, stdout, stderr } = keenPebble(
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

it("verify takes a folder's CSV logs too, and says of a log that it names another world", () => {
  const inside = mkdtempSync(path.join(folder, "logs-"));
  writeFileSync(path.join(inside, "pressed.csv"), "KEYS,Frame\r\nru,1\r\n.,9\r\n");
  writeFileSync(path.join(inside, "other.inputs"), read(turn).replace("world saltglass-cistern", "world dry-well"));
  const { status, stdout } = keenPebble("verify", "--no-reach", demo, inside);
  expect(status).toBe(0);
  expect(stdout).toContain("2 of 2 logs hold");
  expect(stdout).toContain(
    "other.inputs: 4 of 4 checks, 48 frames\n       finding: names the world dry-well, not saltglass-cistern\n",
  );
  const [other, pressed] = JSON.parse(keenPebble("verify", "--no-reach", demo, inside, "--json").stdout) as {
    finding?: string;
  }[];
  expect([other!.finding, "finding" in pressed!]).toEqual(["names the world dry-well, not saltglass-cistern", false]);
});

it("what other systems' editors make of a file is read: CRLF and a byte-order mark, in each format", () => {
  const odd = (name: string, text: string): string => file(name, `\ufeff${text.replace(/\r?\n/g, "\r\n")}`);
  const world = odd("odd-ends.world.json", read(demo));
  expect(keenPebble("check", world).status).toBe(0);
  const log = odd("odd-ends.inputs", read(turn));
  expect(keenPebble("verify", "--no-reach", world, log)).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("4 of 4 checks") as string,
  });
  const [trace, flat] = [path.join(folder, "odd.csv"), path.join(folder, "odd-flat.inputs")];
  expect(keenPebble("replay", world, log, "--trace", trace, "--flat", flat).status).toBe(0);
  // What is written is the format's own form again.
  expect(readFileSync(flat, "utf8")).not.toMatch(/\r|\ufeff/);
  expect(
    keenPebble(
      "compare",
      trace,
      file("odd-trace.csv", `\ufeff${readFileSync(trace, "utf8").replaceAll("\r\n", "\n")}`),
    ),
  ).toMatchObject({ status: 0, stdout: "equal\n" });
  const room = odd("odd-room.room.txt", "###\n#S#\n###\n\n# = tile wall flags=solid\nS = start on floor\n");
  const table = odd("odd-table.csv", "0,1\n1,0\n");
  expect(keenPebble("import", room, table, "--out", path.join(folder, "odd.world.json"))).toMatchObject({
    status: 0,
    stdout: expect.stringContaining("odd-room 3x3, odd-table 2x2") as string,
  });
});
