import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, vi } from "vitest";
import type { commandLine as run } from "../command-line.ts";

/** The checkout. */
export const root = path.resolve(import.meta.dirname, "../../..");
export const demo = "demo/saltglass-cistern/saltglass-cistern.world.json";
export const logs = "demo/saltglass-cistern/logs";
export const turn = path.join(logs, "turn-in-time.inputs");

/** A folder of the test file's own. */
export const folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-cli-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** What a command ended with and said. */
export interface Ended {
  readonly status: number | null;
  readonly stdout: string;
  readonly stderr: string;
}

const BUILT = new URL("../../dist/command-line.js", import.meta.url).href;

/** Runs the built command in the checkout, within this process: its start would take far longer than most commands do. */
export async function keenPebble(...args: string[]): Promise<Ended> {
  const { commandLine } = (await import(BUILT)) as { commandLine: typeof run };
  const out = vi.spyOn(process.stdout, "write").mockReturnValue(true);
  const err = vi.spyOn(process.stderr, "write").mockReturnValue(true);
  const said = ({ mock }: typeof out): string => mock.calls.map(([text]) => String(text)).join("");
  try {
    return { status: await commandLine(args), stdout: said(out), stderr: said(err) };
  } finally {
    out.mockRestore();
    err.mockRestore();
  }
}

/** Runs it in a process of its own, as a user would, with something on standard input. */
export function piped(input: string, ...args: string[]): Ended {
  const { status, stdout, stderr } = spawnSync(process.execPath, ["cli/bin/keen-pebble.js", ...args], {
    cwd: root,
    encoding: "utf8",
    input,
  });
  return { status, stdout, stderr };
}

/** A file in the folder; gives back where it is. */
export function file(name: string, text: string): string {
  const at = path.join(folder, name);
  writeFileSync(at, text);
  return at;
}

export const read = (name: string): string => readFileSync(path.resolve(root, name), "utf8");

/** The demo with one tile put on a cell of its room. */
export function painted(x: number, y: number, tile: number): string {
  const world = JSON.parse(read(demo)) as { rooms: { width: number; cells: number[] }[] };
  world.rooms[0]!.cells[y * world.rooms[0]!.width + x] = tile;
  return file("painted.world.json", JSON.stringify(world));
}
