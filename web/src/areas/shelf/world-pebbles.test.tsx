import { cleanup, render } from "@testing-library/react";
import { expect, it } from "vitest";
import type { ShownLog } from "../../session/shelf/shelf.ts";
import { WorldPebbles } from "./world-pebbles.tsx";

const ran = (log: string, verdict: "pass" | "fail", refused: string | null = null): ShownLog =>
  ({
    log,
    title: log,
    refused,
    checks: [{ check: "always aligned", verdict, frame: 7, seen: null }],
  }) as unknown as ShownLog;

/** What is said of so many logs that were not run, and of those that were. */
function said(notRun: number, ...logs: readonly ShownLog[]): string {
  const { container } = render(<WorldPebbles logs={logs} notRun={notRun} />);
  const { textContent } = container;
  cleanup();
  return textContent;
}

it("nothing is said to pass that nobody looked at: logs that were not run yet are told as such", () => {
  expect(said(1)).toBe("1 log not run yet");
  expect(said(3)).toBe("3 logs not run yet");
  expect(said(2, ran("a", "pass"))).toBe(" 1 pass2 logs not run yet");
  expect(said(0, ran("a", "pass"), ran("b", "pass"))).toBe(" 2 pass");
});

it("what fails and what cannot be run is counted beside it", () => {
  expect(said(0, ran("a", "pass"), ran("b", "fail", "no such room"))).toBe(" 1 pass 1 fail 1 log cannot be run");
});
