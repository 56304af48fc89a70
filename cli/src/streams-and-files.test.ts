import { spawnSync } from "node:child_process";
import {
  closeSync,
  lstatSync,
  openSync,
  readFileSync,
  readdirSync,
  readlinkSync,
  statSync,
  symlinkSync,
} from "node:fs";
import path from "node:path";
import { expect, it } from "vitest";
import { demo, file, folder, keenPebble, logs, piped, read, root, turn } from "./test-support/keen-pebble.ts";

const three = ["against-the-block", "round-the-basin", "turn-in-time"].map((name) => path.join(logs, `${name}.inputs`));

it("what it writes goes through links and into devices and pipes, and replaces nothing but ordinary files", async () => {
  const log = three[0]!;
  const plain = path.join(folder, "plain.csv");
  expect((await keenPebble("replay", demo, log, "--trace", plain)).status).toBe(0);
  const trace = readFileSync(plain, "utf8");
  const fresh = (name: string): string => path.join(folder, name);

  // A link stays one, and what it leads to is written whole.
  const target = file("target.csv", "old");
  symlinkSync("target.csv", fresh("link.csv"));
  expect((await keenPebble("replay", demo, log, "--trace", fresh("link.csv"))).status).toBe(0);
  expect([readlinkSync(fresh("link.csv")), readFileSync(target, "utf8")]).toEqual(["target.csv", trace]);
  symlinkSync("made.csv", fresh("dangling.csv"));
  expect((await keenPebble("replay", demo, log, "--trace", fresh("dangling.csv"))).status).toBe(0);
  expect([readlinkSync(fresh("dangling.csv")), readFileSync(fresh("made.csv"), "utf8")]).toEqual(["made.csv", trace]);

  // Devices and pipes are written to and stay what they are.
  expect(spawnSync("mkfifo", [fresh("pipe")]).status).toBe(0);
  // Open at both ends, so that nobody waits for the other.
  const pipe = openSync(fresh("pipe"), "r+");
  expect((await keenPebble("replay", demo, log, "--flat", fresh("pipe"))).status).toBe(0);
  closeSync(pipe);
  expect(lstatSync(fresh("pipe")).isFIFO()).toBe(true);
  expect((await keenPebble("replay", demo, log, "--trace", "/dev/null")).status).toBe(0);
  expect(statSync("/dev/null").isCharacterDevice()).toBe(true);
  for (const out of ["/dev/stdout", "-"]) {
    const { status, stdout } = piped("", "replay", demo, log, "--trace", out);
    expect(status).toBe(0);
    expect(stdout).toContain(trace);
  }
  expect(lstatSync("/dev/stdout").isSymbolicLink()).toBe(true);
  expect(await keenPebble("replay", demo, log, "--trace", "/dev/full")).toMatchObject({
    status: 2,
    stderr: "keen-pebble: /dev/full cannot be written: ENOSPC\n",
  });

  // What lies beside under the name of a half-written file is somebody else's.
  const other = file("plain.csv.part", "mine");
  expect((await keenPebble("replay", demo, log, "--trace", plain)).status).toBe(0);
  expect((await keenPebble("replay", demo, log, "--trace", path.join(folder, "nowhere", "plain.csv"))).status).toBe(2);
  expect(readFileSync(other, "utf8")).toBe("mine");
  expect(readdirSync(folder).filter((name) => name.startsWith("."))).toEqual([]);
});

it("`-` is standard input, whatever it holds, and standard output, with what is said beside it", async () => {
  expect(piped(read(demo), "check", "-")).toMatchObject({ status: 0 });
  expect(piped(read(turn), "replay", demo, "-").stdout).toBe((await keenPebble("replay", demo, turn)).stdout);
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
  expect(await keenPebble("replay", demo, turn, "--json", "--trace", "-")).toMatchObject({
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
