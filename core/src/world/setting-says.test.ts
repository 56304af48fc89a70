import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { rangeSays, settingSays, valueSays } from "./setting-says.ts";
import { SETTINGS, settingByPath } from "./settings.ts";

describe("what settings say", () => {
  it.each(SETTINGS.map((setting) => [setting.path, setting] as const))("%s has its sentence", (path, setting) => {
    expect(settingSays(path)).toMatch(/^[A-Z].{15,130}\.$/s);
    // Words of the file are said in plain words, each of them; facings are words themselves.
    if (setting.kind !== "choice" || path === "facing.rest") return;
    for (const value of setting.choices) expect(valueSays(path, value), `${path} ${value}`).toMatch(/^[a-z0-9]/);
  });

  it("tell the range with its unit", () => {
    const range = (path: string): string | null => rangeSays(settingByPath(path)!, 16);
    expect(range("glide.speed")).toBe("up to 16 px a frame");
    expect(range("roam.aheadPx")).toBe("up to 16 px");
    expect(range("glide.bufferFrames")).toBe("0 to 600 frames");
    expect(range("drift.drag")).toBe("0 to 256");
    expect(range("glide.carry")).toBe("on or off");
    expect(range("input.ways")).toBeNull();
    expect(valueSays("glide.speed", 3)).toBeNull();
  });

  it("are what the guide says of each setting", () => {
    // `npm run settings-guide` writes it anew.
    const guide = readFileSync(new URL("../../../docs/settings.md", import.meta.url), "utf8").replace(/\s+/g, " ");
    for (const { path, label } of SETTINGS) {
      expect(guide).toContain(`**${label}**, \`${path}\``);
      expect(guide).toContain(settingSays(path));
    }
  });
});
