import { createStore } from "zustand/vanilla";
import { expect, it } from "vitest";
import type { BenchStore } from "../bench/bench-store.ts";
import type { ProjectSession } from "../project/project.ts";
import { WhichRulesSearch } from "./which-rules.ts";

it("is asked of a trace beside a run of a log of the open world, and kept for such a log; of nothing else", async () => {
  const whole = { project: {}, gameGhost: {}, run: {}, parsed: {}, log: "along" };
  for (const gone of ["project", "gameGhost", "run", "parsed", "log"] as const) {
    const { project, ...bench } = { ...whole, [gone]: null };
    const whichRules = new WhichRulesSearch(
      createStore(() => bench) as unknown as BenchStore,
      { store: createStore(() => ({ project })) } as unknown as ProjectSession,
      {} as never,
    );
    const none = whichRules.store.getState();
    if (gone !== "log") await whichRules.search();
    if (gone === "log" || gone === "project") whichRules.keep({} as never);
    expect(whichRules.store.getState()).toBe(none);
  }
});
