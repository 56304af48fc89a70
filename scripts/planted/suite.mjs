import { fork } from "node:child_process";
import path from "node:path";

/** Files of tests that take longer than this, in ms, run after the others: most faults are found before them. */
const QUICK = 1500;
/** And those that take longer than this run last. */
const SLOW = 12_000;
/** So long may any take with a fault in them, in ms; and so many times what they took without one. */
const PATIENCE = 60_000;
const PATIENCE_TIMES = 3;

/** The tests of one project, in the copy of the checkout: one process that stays, started anew where a fault runs for ever. */
export class Suite {
  /** @type {import("node:child_process").ChildProcess | null} */
  #child = null;
  /** @type {Map<string, number>} by file of tests, how long it took without a fault, in ms */
  #times = new Map();
  #whole = 0;
  /** @type {string[]} */
  #changed = [];

  /**
   * @param {string} tree the copy
   * @param {string} project
   * @param {NodeJS.ProcessEnv} env
   */
  constructor(tree, project, env) {
    this.tree = tree;
    this.project = project;
    this.env = env;
  }

  /** Runs all of it without a fault: else each fault would be found by what fails anyway. */
  async begin() {
    const began = Date.now();
    const { failure, times } = await this.#run(null, 1_800_000);
    if (failure !== null) throw new Error(`with no fault planted, this fails: ${failure}`);
    this.#times = new Map(Object.entries(times));
    this.#whole = Date.now() - began;
  }

  /**
   * The test that finds the fault which stands in a source now; null where none does.
   * @param {string} file the source, its whole path
   */
  async find(file) {
    this.#changed.push(file);
    const took = (/** @type {string} */ each) => this.#times.get(each) ?? 0;
    const all = [...this.#times.keys()].sort((a, b) => took(a) - took(b));
    const folder = path.dirname(file) + path.sep;
    const near = all.filter((each) => each.startsWith(folder) && took(each) < SLOW);
    const others = all.filter((each) => !near.includes(each));
    const within = (least, most) => others.filter((each) => took(each) >= least && took(each) < most);
    for (const files of [near, within(0, QUICK), within(QUICK, SLOW), within(SLOW, Infinity)]) {
      if (files.length === 0) continue;
      const { failure } = await this.#run(files, this.#patience(files));
      if (failure !== null) return failure.split("\n")[0].replace(`${this.tree}/`, "");
    }
    return null;
  }

  /** How long some files may take with a fault in them, in ms: beside their tests each one has to be loaded. */
  #patience(/** @type {string[]} */ files) {
    const tests = files.reduce((sum, each) => sum + (this.#times.get(each) ?? 0), 0);
    const loading = (this.#whole * files.length) / this.#times.size;
    return PATIENCE + PATIENCE_TIMES * (tests + loading);
  }

  end() {
    if (this.#child !== null) process.kill(-(/** @type {number} */ (this.#child.pid)), "SIGKILL");
    this.#child = null;
  }

  async #start() {
    const child = fork(path.join(this.tree, "scripts/planted/run-tests.mjs"), [this.project], {
      cwd: this.tree,
      env: this.env,
      detached: true,
      stdio: ["ignore", "ignore", "ignore", "ipc"],
    });
    await new Promise((resolve, reject) => {
      child.once("message", resolve);
      child.once("exit", () => reject(new Error(`the tests of ${this.project} do not start`)));
    });
    // One that broke down has nothing left to be ended.
    child.once("exit", () => {
      if (this.#child === child) this.#child = null;
    });
    this.#child = child;
  }

  /**
   * Runs files of tests, all of them without a name. A fault may end the process in which it is tried, by taking all memory:
   * where it does so twice, that is how it is found.
   * @returns {Promise<{ failure: string | null, times: Record<string, number> }>}
   */
  async #run(files, patience) {
    const first = await this.#runOnce(files, patience);
    if (first !== null) return first;
    const again = files === null ? null : await this.#runOnce(files, patience);
    if (again !== null) return again;
    if (files === null) throw new Error(`the tests of ${this.project} did not run: their process ended`);
    return { failure: "ends the process of its tests", times: {} };
  }

  /** Null where the process of the tests ends. */
  async #runOnce(files, patience) {
    if (this.#child === null) await this.#start();
    const child = /** @type {import("node:child_process").ChildProcess} */ (this.#child);
    // What changed last is as it was again.
    const changed = this.#changed.slice(-2);
    return new Promise((resolve, reject) => {
      const died = () => {
        clearTimeout(timer);
        child.off("message", hear);
        resolve(null);
      };
      child.once("exit", died);
      const timer = setTimeout(() => {
        child.off("exit", died);
        child.off("message", hear);
        this.end();
        resolve({ failure: "runs for ever", times: {} });
      }, patience);
      const hear = (/** @type {unknown} */ told) => {
        clearTimeout(timer);
        child.off("exit", died);
        // A suite that breaks down says nothing of a fault: nothing is counted then.
        if (told !== null && typeof told === "object" && "broken" in told)
          reject(new Error(`the tests of ${this.project} did not run: ${String(told.broken)}`));
        else resolve(/** @type {{ failure: string | null, times: Record<string, number> }} */ (told));
      };
      child.once("message", hear);
      child.send({ changed, files });
    });
  }
}
