import type { Compiled } from "../../compiled/compiled.ts";
import type { CompiledFixture } from "../../compiled/compiled-fixture.ts";
import { LOCK_CIRCUIT, LOCK_COLLECTED, LOCK_ITEM } from "../../compiled/compiled-fixture.ts";
import { compileBody } from "../../ground/body.ts";
import type { Ground } from "../../ground/ground.ts";
import { resolveCell, resolved } from "../../ground/ground.ts";
import { isFree } from "../../ground/free.ts";
import { compile } from "../../simulation/compile.ts";
import { isHazard } from "../../compiled/compiled-fixture.ts";
import type { World } from "../../world/world.ts";
import type { StopCell } from "../fixes/candidates.ts";
import type { ReachAnswer } from "./answer.ts";
import { NEVER } from "./answer.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";

/** Why something is never reached (semantics.md section 10). */
export type Reason =
  | { readonly kind: "behind"; readonly doors: readonly string[] }
  | { readonly kind: "too few"; readonly item: string; readonly needs: number; readonly exist: number }
  | { readonly kind: "not collected"; readonly item: string; readonly missing: readonly string[] }
  | { readonly kind: "not switched"; readonly circuit: string }
  | { readonly kind: "does not fit"; readonly gap: number; readonly body: number }
  | { readonly kind: "one way" }
  | { readonly kind: "over a hazard"; readonly hazards: readonly string[] }
  | { readonly kind: "closed in" };

/** Says of what an answer calls never why it is so. */
export class WhyNot {
  private readonly c: Compiled;
  /** The cells of the last flood. */
  private flooded: readonly { readonly room: number; readonly cell: number }[] = [];
  /** By room and cell: it can be reached. */
  private readonly reached: readonly Uint8Array[];

  constructor(
    world: World,
    rules: string,
    private readonly answer: ReachAnswer,
  ) {
    this.c = compile(world, rules);
    this.reached = answer.first.map((first) => Uint8Array.from(first, (n) => (n >= 0 ? 1 : 0)));
  }

  /** The cells that block between a cell which is never reached, with what is free around it, and what is reached. */
  blockersOf(room: number, cell: number): StopCell[] {
    this.flood(room, cell, this.c.ground, new Set(), new Set());
    const found = new Map<string, StopCell>();
    for (const { room: r, cell: at } of this.flooded)
      for (const blocker of this.neighbours(r, at)) {
        if (!this.neighbours(blocker.room, blocker.cell).some((each) => this.reached[each.room]![each.cell] === 1))
          continue;
        const { id, width } = this.c.rooms[blocker.room]!;
        found.set(`${id} ${blocker.cell}`, { room: id, x: blocker.cell % width, y: Math.floor(blocker.cell / width) });
      }
    return [...found.values()];
  }

  /** The cells beside a cell, also through a seam. */
  private neighbours(room: number, cell: number): { readonly room: number; readonly cell: number }[] {
    const { width } = this.c.rooms[room]!;
    const [cx, cy] = [cell % width, Math.floor(cell / width)];
    return [0, 1, 2, 3].flatMap((way) =>
      resolveCell(this.c.ground, room, cx + DIRECTION_X[way]!, cy + DIRECTION_Y[way]!)
        ? [{ room: resolved.room, cell: resolved.cell }]
        : [],
    );
  }

  /** Of a fixture that is never reached. A door that could be asked is kept shut by its lock. */
  ofFixture(number: number): Reason {
    const fixture = this.c.fixtures.all[number]!;
    if (fixture.blocks && this.isBeside(fixture)) return this.ofLock(fixture) ?? { kind: "closed in" };
    return this.ofCell(fixture.room, fixture.cell);
  }

  /** Of a cell that is never reached. */
  ofCell(room: number, cell: number): Reason {
    const doors = new Set<number>();
    const hazards = new Set<number>();
    const touches = this.flood(room, cell, this.c.ground, doors, hazards);
    // Every door between is open on that ground: those that are never opened are in the way.
    const shut = [...doors].filter((door) => this.answer.fixtures[door] === NEVER);
    if (touches && shut.length > 0) return { kind: "behind", doors: shut.map((door) => this.c.fixtures.all[door]!.id) };
    if (touches && hazards.size > 0)
      return { kind: "over a hazard", hazards: [...hazards].map((each) => this.c.fixtures.all[each]!.id) };
    if (touches) return { kind: "one way" };
    return this.tooNarrow(room, cell) ?? { kind: "closed in" };
  }

  private ofLock({ lock, item, count, circuit }: CompiledFixture): Reason | null {
    const { world, fixtures } = this.c;
    if (lock === LOCK_ITEM) {
      const exist = fixtures.all.reduce(
        (sum, each, i) => sum + (each.gives && each.item === item && this.answer.fixtures[i]! >= 0 ? each.count : 0),
        0,
      );
      return { kind: "too few", item: world.items[item]!.id, needs: count, exist };
    }
    if (lock === LOCK_COLLECTED) {
      const missing = fixtures.all.filter(
        (each, i) => each.gives && each.item === item && this.answer.fixtures[i] === NEVER,
      );
      return { kind: "not collected", item: world.items[item]!.id, missing: missing.map(({ id }) => id) };
    }
    return lock === LOCK_CIRCUIT ? { kind: "not switched", circuit: world.circuits[circuit]! } : null;
  }

  /** Whether the walker can stand beside a fixture's cell. */
  private isBeside({ room, cx, cy }: CompiledFixture): boolean {
    for (let way = 0; way < 4; way++) {
      if (!resolveCell(this.c.ground, room, cx + DIRECTION_X[way]!, cy + DIRECTION_Y[way]!)) continue;
      if (this.reached[resolved.room]![resolved.cell] === 1) return true;
    }
    return false;
  }

  /**
   * Goes from a cell over all that is free on a ground, to and fro, until it meets what can be reached.
   * @param doors gets the doors that were gone through, `hazards` the hazards
   */
  private flood(room: number, cell: number, ground: Ground, doors: Set<number>, hazards: Set<number>): boolean {
    const { c } = this;
    const seen = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
    const queue = [{ room, cell }];
    seen[room]![cell] = 1;
    let touches = false;
    this.flooded = queue;
    for (const { room: r, cell: at } of queue) {
      const { width } = c.rooms[r]!;
      const [cx, cy] = [at % width, Math.floor(at / width)];
      for (let number = c.rooms[r]!.fixtureAt?.[at] ?? -1; number >= 0; number = c.fixtures.all[number]!.next) {
        const fixture = c.fixtures.all[number]!;
        if (fixture.blocks) doors.add(number);
        if (isHazard(fixture)) hazards.add(number);
      }
      for (let way = 0; way < 4; way++) {
        const [x, y] = [cx + DIRECTION_X[way]!, cy + DIRECTION_Y[way]!];
        if (!isFree(ground, r, x * c.tileUnits, y * c.tileUnits) || !resolveCell(ground, r, x, y)) continue;
        const there = { room: resolved.room, cell: resolved.cell };
        if (this.reached[there.room]![there.cell] === 1) touches = true;
        else if (seen[there.room]![there.cell] === 0) {
          seen[there.room]![there.cell] = 1;
          queue.push(there);
        }
      }
    }
    return touches;
  }

  /** Whether a thinner body would come there, and how wide the gap is that this one does not fit through. */
  private tooNarrow(room: number, cell: number): Reason | null {
    const { body } = this.c.rules.walker;
    if (body.kind !== "box") return null;
    const [left, top, width, height] = body.box;
    for (let gap = Math.min(width, height) - 1; gap > 0; gap--) {
      for (const [dx, dy] of [
        [0, 0],
        [width - gap, height - gap],
        [(width - gap) >> 1, (height - gap) >> 1],
      ] as const) {
        const thin = compileBody({ kind: "box", box: [left + dx, top + dy, gap, gap], flush: "free" });
        if (this.flood(room, cell, this.c.ground.withBody(thin), new Set(), new Set()))
          return { kind: "does not fit", gap, body: Math.min(width, height) };
      }
    }
    return null;
  }
}

/** A reason in words, as it stands beside a thing that is never reached. */
export function reasonText(reason: Reason): string {
  switch (reason.kind) {
    case "behind":
      return `behind ${reason.doors.join(", ")}`;
    case "too few":
      return `needs ${reason.needs} ${reason.item}, ${reason.exist === 0 ? "none can be had" : `${reason.exist} can be had`}`;
    case "not collected":
      return reason.missing.length === 0
        ? `waits for every ${reason.item}, and there is none`
        : `waits for every ${reason.item}; ${reason.missing.join(", ")} cannot be reached`;
    case "not switched":
      return `follows ${reason.circuit}, which nothing that can be reached switches`;
    case "does not fit":
      return `the body does not fit: ${reason.gap} px gap, ${reason.body} px body`;
    case "one way":
      return "only from the other side of a one-way";
    case "over a hazard":
      return `only over ${reason.hazards.join(", ")}`;
    case "closed in":
      return "closed in";
  }
}
