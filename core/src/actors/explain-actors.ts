import type { Account, ActorAccount } from "../compiled/account.ts";
import { ACTOR_NUMBERS, AT_X, AT_Y, FACING, FRAMES_LEFT, LEG, PHASE } from "../compiled/actor-memory.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { Memory } from "../compiled/memory.ts";
import type { SimState } from "../compiled/state.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import { PHASE_DOES } from "../world/actors.ts";
import { DX, DY } from "./move-actors.ts";
import { meets } from "./touch-actors.ts";

/** An actor of the walker's room as it is after a frame, and what it weighed and chose in it, as plain data. */
export interface ExplainedActor extends Omit<ActorAccount, "actor"> {
  readonly id: string;
  /** Its place in units, and facing. */
  readonly at: readonly [number, number];
  readonly facing: number;
  /** The direction of the leg under way, 0, 0 without one. */
  readonly leg: readonly [number, number];
  readonly does: (typeof PHASE_DOES)[number];
  readonly meets: boolean;
}

/** The actors of the walker's room after a frame; what it chose is missing in row 0, where nobody moves. */
export function explainedActors(c: Compiled, s: SimState, { actors: accounts }: Account): ExplainedActor[] {
  if (c.actors === null) return [];
  const { numbers } = s.memory.actors!;
  const { all, firstOfRoom } = c.actors;
  return all.slice(firstOfRoom[s.room], firstOfRoom[s.room + 1]).map((actor): ExplainedActor => {
    const { number } = actor;
    const at = number * ACTOR_NUMBERS;
    const phase = numbers[at + PHASE]!;
    const leg = numbers[at + LEG]!;
    const { does, frames } = actor.plan[phase]!;
    const still = { phase, framesLeft: frames < 0 ? null : numbers[at + FRAMES_LEFT]!, chose: null };
    const { actor: _, ...account } = accounts.find((each) => each.actor === number) ?? {
      actor: number,
      ...still,
      directions: [],
      target: null,
    };
    return {
      id: actor.id,
      at: [numbers[at + AT_X]!, numbers[at + AT_Y]!],
      facing: numbers[at + FACING]!,
      leg: leg === 0 ? [0, 0] : [DX[leg - 1]!, DY[leg - 1]!],
      does: PHASE_DOES[does]!,
      meets: meets(c, s, actor),
      ...account,
    };
  });
}

/** The cells that all actors are nearest to, and their facings, in file order. */
export function placesOfActors(
  c: Compiled,
  { actors }: Memory,
): { readonly cell: readonly [number, number]; readonly facing: number }[] {
  return (c.actors?.all ?? []).map(({ number }) => {
    const at = number * ACTOR_NUMBERS;
    const { numbers } = actors!;
    const cell = [occupiedX(c.tileUnits, numbers[at + AT_X]!), occupiedY(c.tileUnits, numbers[at + AT_Y]!)] as const;
    return { cell, facing: numbers[at + FACING]! };
  });
}
