import { CHECKPOINT_TOUCHED } from "../../world/vocabulary.ts";
import type { CheckpointFixture } from "../../world/fixtures/checkpoint.ts";
import type { FixtureBehaviour } from "../fixture-behaviour.ts";
import { PLAIN_BEHAVIOUR } from "../fixture-behaviour.ts";

export const checkpoint: FixtureBehaviour<CheckpointFixture> = {
  ...PLAIN_BEHAVIOUR,
  touch: (c, s, number) => {
    if (s.memory.checkpoint !== number) s.emit(CHECKPOINT_TOUCHED, number);
    s.memory.checkpoint = number;
    if (c.world.respawnRestores === "checkpoint") s.memory.hold();
    return false;
  },
};
