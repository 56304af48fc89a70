import { describe, expect, it } from "vitest";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Rules } from "../world/world.ts";
import { compile } from "../simulation/compile.ts";
import { SimState } from "../compiled/state.ts";
import { readIntent } from "./intent.ts";
import { keysFromText } from "../world/keys.ts";

/** Intent and second choice after frames with these keys. */
function intent(input: Partial<Rules["input"]>, ...frames: string[]): string {
  const c = compile(tinyWorld(["S"], { input }));
  const state = new SimState(c);
  for (const keys of frames) {
    state.frame++;
    state.heldBefore = state.held;
    state.held = keysFromText(keys);
    readIntent(c, state);
  }
  return `${state.intentX},${state.intentY} then ${state.secondX},${state.secondY}`;
}

describe("intent", () => {
  it("opposite keys cancel, or the one pressed later or earlier counts", () => {
    expect(intent({}, "L", "LR")).toBe("0,0 then 0,0");
    expect(intent({ opposites: "latest" }, "L", "LR")).toBe("1,0 then 0,0");
    expect(intent({ opposites: "earliest" }, "L", "LR")).toBe("-1,0 then 0,0");
    expect(intent({ opposites: "latest" }, "R", "LR")).toBe("-1,0 then 0,0");
  });
  it("pressed in one frame, the later of L, R, U, D counts as pressed later", () => {
    expect(intent({ opposites: "latest" }, "UD")).toBe("0,1 then 0,0");
    expect(intent({}, "RU")).toBe("0,-1 then 1,0");
  });
  it("four ways keep the preferred axis and remember the other", () => {
    expect(intent({}, "U", "RU")).toBe("1,0 then 0,-1");
    expect(intent({ prefer: "vertical" }, "U", "RU")).toBe("0,-1 then 1,0");
    expect(intent({ prefer: "horizontal" }, "R", "RU")).toBe("1,0 then 0,-1");
  });
  it("eight ways keep both", () => {
    expect(intent({ ways: 8 }, "U", "RU")).toBe("1,-1 then 0,0");
  });
});
