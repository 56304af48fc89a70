// Stays in the copy of the checkout and runs files of tests as it is told to, so that Vitest starts once: `planted-faults.mjs`
// starts it with the name of a project, and says which sources changed and which files of tests to run.
import { createVitest } from "vitest/node";

const [, , name] = process.argv;
const vitest = await createVitest("test", {
  watch: false,
  project: [name],
  bail: 1,
  passWithNoTests: true,
  reporters: [{}],
  teardownTimeout: 2000,
});
await vitest.standalone();
const project = vitest.projects.find((each) => each.name === name);
const tell = process.send?.bind(process);
if (project === undefined || tell === undefined) throw new Error("is started by planted-faults.mjs, with a project");

/** The first test that failed, or the file that did not load; null where all passed. */
function failureOf({ testModules, unhandledErrors }) {
  for (const file of testModules) {
    for (const test of file.children.allTests())
      if (test.result().state === "failed")
        return `${file.relativeModuleId}: ${test.fullName.trim()}\n${test.result().errors?.[0]?.message ?? ""}`;
    if (file.state() === "failed") return `${file.relativeModuleId}: does not load`;
  }
  return unhandledErrors.length > 0 ? `outside of all tests: ${unhandledErrors[0].message}` : null;
}

process.on("message", async ({ changed, files }) => {
  for (const file of changed) vitest.invalidateFile(file);
  // What a run before said would count as a failure of this one.
  vitest.state.filesMap.clear();
  vitest.state.idMap.clear();
  let failure;
  let times = {};
  try {
    const asked = files ?? (await vitest.globTestSpecifications()).map(({ moduleId }) => moduleId);
    const ran = await vitest.runTestSpecifications(
      asked.map((file) => project.createSpecification(file)),
      false,
    );
    failure = failureOf(ran);
    times = Object.fromEntries(ran.testModules.map((file) => [file.moduleId, file.diagnostic().duration]));
  } catch (error) {
    // Which says nothing of a fault.
    tell({ broken: error.message });
    return;
  }
  tell({ failure, times });
});
tell({ ready: true });
