import { SWITCHED } from "../../world/vocabulary.ts";
import type { SwitchFixture } from "../../world/fixtures/switch.ts";
import type { FixtureBehaviour } from "../fixture-behaviour.ts";

export const switchKind: FixtureBehaviour<SwitchFixture> = {
  compile: ({ circuit }, { circuits }) => ({ circuit: circuits.get(circuit)! }),
  touch: (_, s, number, { circuit }) => {
    s.memory.setCircuit(circuit, s.memory.on[circuit] === 0);
    s.emit(SWITCHED, number);
    return false;
  },
  reset: (memory, _, { circuit }) => memory.setCircuit(circuit, false),
};
