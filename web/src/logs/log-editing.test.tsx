import { session } from "../page-session.ts";
import { cleanup, render, screen } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useProject } from "../use-session.ts";
import { ALONG, DOWN, hall } from "../test-support/hall.ts";
import type { Opened } from "../test-support/opened.ts";
import { openHere, until } from "../test-support/opened.ts";
import { LogTable } from "./log-table.tsx";
import { LogText } from "./log-text.tsx";
import { PATIENCE } from "../test-support/patience.ts";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG, down: DOWN });
  // A list is drawn as far as it is seen: without a layout nothing is.
  vi.spyOn(HTMLElement.prototype, "clientHeight", "get").mockReturnValue(300);
  vi.spyOn(HTMLElement.prototype, "clientWidth", "get").mockReturnValue(300);
  session.shownLog.selectLog("along");
  await until(() => session.benchStore.getState().run !== null);
});
afterEach(() => {
  cleanup();
  opened.close();
  vi.restoreAllMocks();
});

const text = (): string => session.project.store.getState().project!.logs.get("along")!;
const lines = (): string => text().split("---\n")[1]!.trim().replaceAll("\n", ", ");

function Text() {
  const shown = useProject((state) => state.project?.logs.get("along") ?? "");
  return <LogText id="along" text={shown} />;
}

/** The log as text, with what one types into and reads. */
function shownText() {
  render(<Text />);
  const area = screen.getByLabelText<HTMLTextAreaElement>("Log text");
  return { user: userEvent.setup(), area, says: () => screen.getByRole("status").textContent };
}

/** Puts the caret behind a piece of the text. */
function behind(area: HTMLTextAreaElement, piece: string): void {
  area.focus();
  const at = area.value.indexOf(piece) + piece.length;
  area.setSelectionRange(at, at);
}

describe("a log as text", () => {
  it("is taken over with each keystroke that leaves it in order, and undone as one", async () => {
    const { user, area, says } = shownText();
    expect(says()).toBe("Each keystroke runs it again.");
    behind(area, "32");
    await user.keyboard("{Backspace}");
    expect(lines()).toBe("3 R, 8 .");
    await user.keyboard("0");
    expect(lines()).toBe("30 R, 8 .");
    await until(() => session.benchStore.getState().run?.frames === 38);
    await user.tab();
    expect(session.project.travel("undo")).toBe(true);
    expect(text()).toBe(ALONG);
    expect(session.project.travel("undo", true)).toBe(false);
  });

  it("that is not in order stays as typed, is marked at its line, and leaves the log as it was", async () => {
    const { user, area, says } = shownText();
    behind(area, "32 R");
    await user.keyboard("Q");
    expect(text()).toBe(ALONG);
    expect(area.value).toContain("32 RQ");
    expect(area.getAttribute("aria-invalid")).toBe("true");
    expect(says()).toMatch(/The log stays as it was last until this is in order.*6 expected keys/);
    expect(document.querySelector(".faulty")!.textContent).toBe("6\n");
    await user.keyboard("{Backspace}");
    expect(area.getAttribute("aria-invalid")).toBe("false");
    expect(text()).toBe(ALONG);
  });

  it("that is not in order is kept in the browser and offered again, until it is or is let go", async () => {
    const { user, area } = shownText();
    behind(area, "32 R");
    await user.keyboard("Q");
    await until(async () => (await session.outbox.keptDraft("hall", "log/along")) !== null);
    cleanup();
    const again = shownText();
    await until(() => again.area.value.includes("32 RQ"));
    expect(again.area.getAttribute("aria-invalid")).toBe("true");
    await again.user.click(screen.getByRole("button", { name: "Back to the log as it is" }));
    expect(again.area.value).toBe(ALONG);
    await vi.waitFor(async () => expect(await session.outbox.keptDraft("hall", "log/along")).toBeNull(), PATIENCE);
  });

  it("says why it cannot be run, where it is in order and no run comes of it", async () => {
    const { user, area, says } = shownText();
    behind(area, "keen-pebble-inputs 1\n");
    await user.keyboard("start roof 1 1 down{Enter}");
    await until(() => says()?.startsWith("It cannot be run"));
    expect(says()).toMatch(/^It cannot be run: .*roof.*\.$/);
  });

  it("follows what is changed elsewhere while nobody types", async () => {
    const { area } = shownText();
    session.project.edit({ kind: "change-log", log: "along", before: ALONG, after: ALONG.replace("32 R", "5 L") });
    await until(() => area.value.includes("5 L"));
    expect(area.value).toBe(text());
  });
});

describe("a log's runs of keys", () => {
  const table = () => {
    render(<LogTable />);
    return {
      user: userEvent.setup(),
      frames: () => screen.getAllByLabelText<HTMLInputElement>("Frames"),
      keys: () => screen.getAllByLabelText<HTMLInputElement>("Keys"),
    };
  };

  it("are changed in place: how long, and which keys in whatever order and case", async () => {
    const { user, frames, keys } = table();
    await until(() => frames().length === 2);
    expect([frames().map(({ value }) => value), keys().map(({ value }) => value)]).toEqual([
      ["32", "8"],
      ["R", "."],
    ]);
    await user.clear(frames()[0]!);
    await user.type(frames()[0]!, "12{Enter}");
    expect(lines()).toBe("12 R, 8 .");
    await user.clear(keys()[1]!);
    await user.type(keys()[1]!, "ul{Enter}");
    expect(lines()).toBe("12 R, 8 LU");
    await until(() => keys()[1]!.value === "LU");
    await user.clear(keys()[1]!);
    await user.tab();
    expect(lines()).toBe("12 R, 8 .");
  });

  it.each([
    ["Frames", "0", "1 to 1000000 frames"],
    ["Frames", "1000001", "1 to 1000000 frames"],
    ["Frames", "two", "1 to 1000000 frames"],
    ["Keys", "X", "letters out of LRUDAB, or ."],
    ["Keys", "R7", "letters out of LRUDAB, or ."],
  ])("%s take no %j, and say what they take", async (label, typed, fault) => {
    const { user } = table();
    await until(() => screen.queryAllByLabelText(label).length === 2);
    const cell = screen.getAllByLabelText<HTMLInputElement>(label)[0]!;
    const before = cell.value;
    await user.clear(cell);
    await user.type(cell, typed);
    expect([cell.getAttribute("aria-invalid"), cell.title]).toEqual(["true", fault]);
    await user.keyboard("{Enter}");
    expect([lines(), cell.value]).toEqual(["32 R, 8 .", before]);
  });

  it("are left as they were with Escape", async () => {
    const { user, frames } = table();
    await until(() => frames().length === 2);
    await user.clear(frames()[0]!);
    await user.type(frames()[0]!, "7{Escape}");
    expect(frames()[0]!.value).toBe("32");
    await user.tab();
    expect(lines()).toBe("32 R, 8 .");
  });

  it("lead to their last frame, and the run of the shown frame is marked", async () => {
    const { user } = table();
    await until(() => document.querySelectorAll(".log-row").length === 3);
    await user.click(screen.getByTitle("Frames 33 to 40: show the last one"));
    expect(session.benchStore.getState().frame).toBe(40);
    await until(() => document.querySelectorAll(".log-row")[2]!.classList.contains("on"));
  });
});
