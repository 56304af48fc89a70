import { shelfParts } from "../../page-shelf.ts";
import { cleanup, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { readWorld } from "@keen-pebble/core/reading";
import { until } from "../../test-support/opened.ts";
import { MakeWorld } from "./make-world.tsx";
import { WorldName } from "./world-name.tsx";

/** Files that were sent, as the server was asked to take them in. */
const sent: { readonly world?: string; readonly origin?: string }[] = [];
beforeEach(() => {
  sent.length = 0;
  vi.stubGlobal("fetch", (path: string, init: RequestInit = {}) => {
    if (path === "/api/imports") {
      sent.push(JSON.parse(init.body as string) as (typeof sent)[number]);
      return Promise.resolve(Response.json({ id: "x", name: "X", made: "world", revision: 1, summary: "", steps: [] }));
    }
    return Promise.resolve(Response.json({ worlds: [] }));
  });
  // Nothing is drawn here.
  const nothing: unknown = new Proxy(() => undefined, {
    get: (_target, key) => (key === Symbol.toPrimitive ? () => 0 : nothing),
    apply: () => nothing,
    set: () => true,
  });
  vi.spyOn(HTMLCanvasElement.prototype, "getContext").mockReturnValue(nothing as never);
  vi.stubGlobal(
    "OffscreenCanvas",
    class {
      getContext = (): unknown => nothing;
    },
  );
  shelfParts.shelf.store.setState({ worlds: [{ id: "dry-well", name: "Dry well" } as never], busy: false, told: null });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

const made = async () => {
  await until(() => sent.length > 0);
  return readWorld(sent[0]!.world!);
};

describe("a world that is made", () => {
  it("of a typed room is read with each keystroke: what is not in order is told by line and column", async () => {
    const user = userEvent.setup();
    render(<MakeWorld />);
    const typing = within(screen.getByRole("region", { name: "Type a room" }));
    const area = typing.getByLabelText<HTMLTextAreaElement>("Room as text");
    const button = typing.getByRole<HTMLButtonElement>("button", { name: "Create world" });
    await until(() => !button.disabled);
    await user.clear(area);
    await user.type(area, "###{Enter}#S@{Enter}###{Enter}{Enter}S = start on floor");
    await until(() => typing.getByRole("status").textContent.includes("2:3"));
    expect([typing.getByRole("status").textContent, button.disabled, area.getAttribute("aria-invalid")]).toEqual([
      '2:3 nothing explains "@"; add a line `@ = tile ID` to the legend',
      true,
      "true",
    ]);
    await user.clear(area);
    await user.type(area, "####{Enter}#.S#{Enter}####{Enter}{Enter}S = start on floor");
    await until(() => typing.getByRole("status").textContent === "4 x 3, start 2,1");
    await user.type(screen.getByLabelText("Name of the new world"), "Dry well");
    await user.click(button);
    const world = await made();
    // A name that is taken already gets an id of its own.
    expect([world.id, world.name, world.start.cell, world.rooms[0]!.width, sent[0]!.origin]).toEqual([
      "dry-well-2",
      "Dry well",
      [2, 1],
      4,
      "made",
    ]);
  });

  it("of a template begins with its text", async () => {
    const user = userEvent.setup();
    render(<MakeWorld />);
    await user.selectOptions(screen.getByLabelText("Begin with"), "Winding way");
    const area = screen.getByLabelText<HTMLTextAreaElement>("Room as text");
    expect(area.value).toContain("#S..#...#...#");
    await user.type(area, " ");
    expect(screen.getByLabelText<HTMLSelectElement>("Begin with").value).toBe("");
  });

  it.each([
    ["Across", "0", true],
    ["Across", "513", true],
    ["Across", "1", false],
    ["Down", "512", false],
    ["Down", "", true],
    ["Down", "1e2", true],
    ["Cell", "3", true],
    ["Cell", "4", false],
    ["Cell", "129", true],
  ])("empty: %s %j is refused: %s", async (label, value, refused) => {
    const user = userEvent.setup();
    render(<MakeWorld />);
    const empty = within(screen.getByRole("region", { name: "Empty world" }));
    const field = empty.getByLabelText(label);
    await user.clear(field);
    if (value !== "") await user.type(field, value);
    expect(empty.getByRole<HTMLButtonElement>("button", { name: "Create world" }).disabled).toBe(refused);
  });

  it("empty is as large as was typed, and called what was typed or New world", async () => {
    const user = userEvent.setup();
    render(<MakeWorld />);
    const empty = within(screen.getByRole("region", { name: "Empty world" }));
    for (const [label, value] of [
      ["Across", "9"],
      ["Down", "7"],
      ["Cell", "8"],
    ] as const) {
      await user.clear(empty.getByLabelText(label));
      await user.type(empty.getByLabelText(label), value);
    }
    await user.click(empty.getByRole("button", { name: "Create world" }));
    const { id, name, tileSize, rooms } = await made();
    expect([id, name, tileSize, rooms[0]!.width, rooms[0]!.height]).toEqual(["new-world", "New world", 8, 9, 7]);
  });

  it("is opened once it is there", async () => {
    const opened: string[] = [];
    const stop = shelfParts.asked.openWorld.answer((world) => opened.push(world));
    const user = userEvent.setup();
    render(<MakeWorld />);
    const empty = within(screen.getByRole("region", { name: "Empty world" }));
    await user.click(empty.getByRole("button", { name: "Create world" }));
    await until(() => opened.length > 0);
    // What the server called it.
    expect(opened).toEqual(["x"]);
    stop();
  });

  it("waits while something else is under way", () => {
    shelfParts.shelf.store.setState({ busy: true });
    render(<MakeWorld />);
    for (const button of screen.getAllByRole<HTMLButtonElement>("button", { name: "Create world" }))
      expect(button.disabled).toBe(true);
  });
});

describe("a world's name", () => {
  const entry = {
    id: "dry-well",
    name: "Dry well",
    revision: 3,
    rooms: 1,
    logs: 0,
    summary: "",
    savedAt: "2026-08-01T00:00:00.000Z",
  };

  it.each([
    ["Wet well{Enter}", 1],
    ["   {Enter}", 0],
    ["Dry well{Enter}", 0],
    ["Wet well{Escape}", 0],
  ])("typed as %j is stored %i times", async (keys, times) => {
    const user = userEvent.setup();
    const asked: string[] = [];
    vi.stubGlobal("fetch", (path: string, init: RequestInit = {}) => {
      asked.push(`${init.method ?? "GET"} ${path} ${typeof init.body === "string" ? init.body : ""}`);
      return Promise.resolve(Response.json({ revision: 3, worlds: [] }));
    });
    let ended = 0;
    render(<WorldName world={entry} naming onDone={() => ended++} />);
    const field = screen.getByLabelText<HTMLInputElement>("New name of Dry well");
    expect([field.selectionStart, field.selectionEnd]).toEqual([0, "Dry well".length]);
    await user.clear(field);
    await user.keyboard(keys);
    expect(ended).toBeGreaterThan(0);
    await until(() => !shelfParts.shelf.store.getState().busy);
    const stored = asked.filter((each) => each.startsWith("POST"));
    expect(stored).toHaveLength(times);
    if (times > 0) expect(stored[0]).toMatch(/revisions .*"part":"name","before":"Dry well","after":"Wet well"/);
  });
});
