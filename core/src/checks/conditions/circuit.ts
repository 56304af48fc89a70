import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS, NOTHING_MORE, PLAIN_CONDITION, oneOf } from "../condition-kind.ts";
import { missing } from "../named-things.ts";
import { isId } from "../words.ts";

/** A circuit is on, or off. */
export interface CircuitCondition {
  readonly kind: "circuit";
  readonly circuit: string;
  readonly on: boolean;
}

export const circuit: ConditionKind<CircuitCondition> = {
  ...PLAIN_CONDITION,
  form: "circuit NAME on|off",
  parse: (words) => {
    const [name = "", turned = ""] = words;
    return words.length === 2 && isId(name) && (turned === "on" || turned === "off")
      ? { kind: "circuit", circuit: name, on: turned === "on" }
      : null;
  },
  text: (condition) => `circuit ${condition.circuit} ${condition.on ? "on" : "off"}`,
  expected: (world, { length }) =>
    length === 0 ? oneOf("a circuit", world.circuits) : length === 1 ? oneOf("on or off", ["on", "off"]) : NOTHING_MORE,
  dangling: (world, condition) =>
    world.circuits.includes(condition.circuit) ? null : missing("circuit", condition.circuit),
  compile: (c, condition) => {
    const number = c.world.circuits.indexOf(condition.circuit);
    const wanted = condition.on ? 1 : 0;
    return number < 0 ? NEVER_HOLDS : (s) => s.memory.on[number] === wanted;
  },
  seen: (c, condition, s) => {
    const number = c.world.circuits.indexOf(condition.circuit);
    return number < 0
      ? missing("circuit", condition.circuit)
      : `circuit ${condition.circuit} ${s.memory.on[number] === 1 ? "on" : "off"}`;
  },
  trueIn: (c, s) =>
    c.world.circuits.flatMap((name, i): CircuitCondition[] =>
      s.memory.on[i] === 1 ? [{ kind: "circuit", circuit: name, on: true }] : [],
    ),
};
