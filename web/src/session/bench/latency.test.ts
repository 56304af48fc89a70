import { session } from "../../page-session.ts";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { percentile } from "./latency.ts";

let visibility: DocumentVisibilityState = "visible";
let now = 0;
beforeEach(() => {
  visibility = "visible";
  now = 1000;
  vi.spyOn(document, "visibilityState", "get").mockImplementation(() => visibility);
  vi.spyOn(performance, "now").mockImplementation(() => now);
  session.latency.forgetPictures();
});
afterEach(() => vi.restoreAllMocks());

/** The page is hidden or shown again at a moment. */
function turn(to: DocumentVisibilityState, at: number): void {
  visibility = to;
  now = at;
  document.dispatchEvent(new Event("visibilitychange"));
}
const max = (): number | null => session.latency.store.getState().max;

it("tells how long 95 in 100 of the last changes took at most, and nothing before there is one", () => {
  expect(max()).toBeNull();
  for (let i = 1; i <= 20; i++) session.latency.notePicture(now, now + i);
  expect(max()).toBe(19);
  session.latency.notePicture(now, now + 500);
  expect(max()).toBe(20);
  // Only the last 64 count.
  for (let i = 0; i < 64; i++) session.latency.notePicture(now, now + 7);
  expect(max()).toBe(7);
  session.latency.forgetPictures();
  expect(max()).toBeNull();
});

it("notes nothing of a page that is hidden, or was since the change: nobody waited for that picture", () => {
  session.latency.notePicture(now, now + 16);
  turn("hidden", 1100);
  session.latency.notePicture(1090, 22_000);
  expect(max()).toBe(16);
  // Shown again, the picture of a change made before it comes late.
  turn("visible", 22_300);
  session.latency.notePicture(1090, 22_366);
  session.latency.notePicture(22_299, 22_380);
  expect(max()).toBe(16);
  session.latency.notePicture(22_310, 22_340);
  expect(max()).toBe(30);
});

it.each([
  [[5], 0.95, 5],
  [[3, 1, 2], 0.5, 2],
  [[4, 1, 3, 2], 0.5, 2],
  [[4, 1, 3, 2], 1, 4],
  [[4, 1, 3, 2], 0, 1],
])("of %j a share of %d does not exceed %d", (values, share, expected) =>
  expect(percentile(values, share)).toBe(expected),
);
