import { session } from "../page-session.ts";
import { readLog, writeLog } from "@keen-pebble/core/check";
import { cleanup, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { useBench } from "../use-session.ts";
import { ALONG, hall } from "../test-support/hall.ts";
import type { Opened } from "../test-support/opened.ts";
import { openHere, until } from "../test-support/opened.ts";
import { CheckWriter } from "./check-writer.tsx";

let opened: Opened;
beforeEach(async () => {
  opened = await openHere(hall(), { along: ALONG });
  session.shownLog.selectLog("along", 8);
  await until(() => session.benchStore.getState().run !== null);
});
afterEach(() => {
  cleanup();
  opened.close();
});

function Shown() {
  return useBench((state) => state.writing) === null ? <p>closed</p> : <CheckWriter />;
}

/** The writer, begun, with what one types into and reads. */
function writer(replaces: number | null = null) {
  session.checks.beginCheck(replaces);
  render(<Shown />);
  return {
    user: userEvent.setup(),
    input: screen.getByLabelText<HTMLInputElement>("Check"),
    says: () => screen.getByRole("status").textContent,
    words: () => screen.queryAllByRole("option").map((each) => each.textContent),
  };
}
const checks = (): string[] =>
  writeLog(readLog(session.project.store.getState().project!.logs.get("along")!))
    .split("\n")
    .filter((line) => line.startsWith("check "));

describe("a check that is written", () => {
  it("has the keyboard, says at once what it says of the run, and is kept with Enter", async () => {
    const { user, input, says } = writer();
    expect(document.activeElement).toBe(input);
    await user.keyboard("at 8 cell 3 2");
    await until(() => says()?.startsWith("passes"));
    expect(says()).toBe("passes, decided at frame 8");
    await user.keyboard("{Backspace}9");
    await until(() => says()?.startsWith("fails"));
    expect(says()).toBe("fails at frame 8; seen: cell 3 2");
    await user.keyboard("{Backspace}2{Enter}");
    await screen.findByText("closed");
    expect(checks()).toEqual(["check by 40 cell 6 2", "check always aligned", "check at 8 cell 3 2"]);
  });

  it("is completed by Tab and by arrows, name by name, and can be written without the mouse", async () => {
    const { user, input, words } = writer();
    await user.keyboard("ev");
    expect(words()).toEqual(["ever", "never"]);
    await user.keyboard("{Tab}");
    expect(input.value).toBe("ever ");
    await user.keyboard("st");
    expect(words()).toContain("status");
    const at = words().indexOf("status");
    await user.keyboard("{ArrowDown}".repeat(at + 1));
    expect(document.getElementById(input.getAttribute("aria-activedescendant")!)!.textContent).toBe("status");
    await user.keyboard("{Enter}");
    expect(input.value).toBe("ever status ");
    // Upwards it begins at the end.
    await user.keyboard("{ArrowUp}");
    expect(screen.getAllByRole("option").at(-1)!.getAttribute("aria-selected")).toBe("true");
    await user.keyboard("{Enter}");
    expect(input.value).toMatch(/^ever status \w+ $/);
    await user.keyboard("{Enter}");
    await screen.findByText("closed");
    expect(checks().at(-1)).toBe(`check ${input.value.trim()}`);
  });

  it("that is not whole is not wrong yet; one that names what is not there is marked at its place, and not kept", async () => {
    const { user, input, says } = writer();
    await user.keyboard("always ro");
    expect(input.getAttribute("aria-invalid")).toBe("false");
    await user.keyboard("om roof");
    expect(input.getAttribute("aria-invalid")).toBe("true");
    expect(screen.getByText("roof").tagName).toBe("U");
    expect(says()).toMatch(/roof/);
    expect(screen.getByRole<HTMLButtonElement>("button", { name: "Add it" }).disabled).toBe(true);
    await user.keyboard("{Enter}");
    expect(checks()).toHaveLength(2);
    expect(input.value).toBe("always room roof");
  });

  it("is given up with Escape, which first closes the list of words", async () => {
    const { user, words } = writer();
    await user.keyboard("al");
    expect(words()).toContain("always");
    await user.keyboard("{Escape}");
    expect(words()).toEqual([]);
    await user.keyboard("{Escape}");
    await screen.findByText("closed");
    expect(checks()).toHaveLength(2);
  });

  it("takes the place of one that is changed", async () => {
    const { user, input } = writer(0);
    expect(input.value).toBe("by 40 cell 6 2");
    expect(screen.getByRole("heading").textContent).toBe("Change this check");
    await user.clear(input);
    await user.keyboard("by 30 cell 6 2{Enter}");
    await screen.findByText("closed");
    expect(checks()).toEqual(["check by 30 cell 6 2", "check always aligned"]);
  });

  it("is offered as what is true in the frame: each offer holds, and one press keeps it", async () => {
    const { user } = writer();
    const offers = within(screen.getByRole("group", { name: "True in this frame" }));
    await until(() => offers.queryAllByRole("button").length > 0);
    const texts = offers.getAllByRole("button").map((each) => each.textContent.trim());
    expect(texts).toContain("at 8 cell 3 2");
    await user.click(offers.getByRole("button", { name: "at 8 cell 3 2" }));
    await screen.findByText("closed");
    expect(checks().at(-1)).toBe("check at 8 cell 3 2");
    await until(() => session.benchStore.getState().run?.verdicts.length === 3);
    expect(session.benchStore.getState().run!.verdicts.at(-1)).toMatchObject({ verdict: "pass", frame: 8 });
  });

  it("is offered anew for another frame", async () => {
    writer();
    const offers = within(screen.getByRole("group", { name: "True in this frame" }));
    await until(() => offers.queryByText(/at 8 cell/) !== null);
    session.playing.showFrame(30);
    await until(() => offers.queryByText(/at 30 cell 6 2/) !== null);
    expect(offers.queryByText(/at 8 cell/)).toBeNull();
  });
});
