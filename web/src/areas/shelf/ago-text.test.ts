import { expect, it } from "vitest";
import { agoText } from "./ago-text.ts";

const now = Date.parse("2026-11-28T12:00:00Z");

it.each([
  [0, "just now"],
  [59, "just now"],
  [60, "1 minute ago"],
  [3599, "59 minutes ago"],
  [3600, "1 hour ago"],
  [86_399, "23 hours ago"],
  [86_400, "1 day ago"],
  [40 * 86_400, "40 days ago"],
])("%i seconds are %s", (seconds, text) => {
  expect(agoText(new Date(now - seconds * 1000).toISOString(), now)).toBe(text);
});
