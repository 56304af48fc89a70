import type { Compiled } from "../compiled/compiled.ts";
import type { Facing } from "../world/facing.ts";
import type { Rules } from "../world/world.ts";
import type { OneShape } from "./naive-movement.ts";
import { counting, meets, meetsBoxOf, shapesNear } from "./naive-movement.ts";

type Axis = "x" | "y";
type Way = readonly [number, number];
type Place = { readonly x: number; readonly y: number };

const DIRECTIONS = [
  ["x", -1],
  ["x", 1],
  ["y", -1],
  ["y", 1],
] as const;
const NONE: Way = [0, 0];
const same = (a: Way, b: Way): boolean => a[0] === b[0] && a[1] === b[1];

/**
 * The walker in a world of one room without fixtures, as semantics.md sections 2 and 4 to 7 say it, one unit at a time and
 * with no thought of speed: what the simulation is held against. Only what blocks is asked of the compiled ground.
 */
export class NaiveWalker {
  x: number;
  y: number;
  facing: Facing;
  pose: number;
  bumping = false;
  escaped = false;
  private readonly rules: Rules;
  private readonly tile: number;
  private readonly shapes = new Map<string, readonly OneShape[]>();
  private frame = 0;
  private held = [false, false, false, false];
  private pressed = [false, false, false, false];
  private rank = [0, 0, 0, 0];
  private raw: Way = NONE;
  private intent: Way = NONE;
  private second: Way = NONE;
  private timer: number | null = null;
  private leg: { way: Way; gone: number; from: Place } | null = null;
  private last: Way = NONE;
  private buffered: { way: number; frame: number } | null = null;
  private velocity = { x: 0, y: 0 };
  private wentWay: Way = NONE;
  private counter = 0;
  private stood = 0;

  constructor(private readonly c: Compiled) {
    const { start, rules, activeRules } = c.world;
    this.rules = rules.find(({ id }) => id === activeRules)!;
    this.tile = c.ground.tileUnits;
    [this.x, this.y] = [start.cell[0] * this.tile, start.cell[1] * this.tile];
    this.facing = start.facing;
    this.pose = this.rules.pose.idleImage;
  }

  /** One frame; `keys` as bits of L, R, U, D. */
  step(keys: number): void {
    this.frame++;
    const before = { x: this.x, y: this.y };
    this.readKeys(keys);
    this.wentWay = NONE;
    this.bumping = false;
    const { gait } = this.rules;
    if (gait === "hop") this.hop();
    else if (gait === "glide") this.glide();
    else if (gait === "roam") this.roam();
    else this.drift();
    this.face();
    this.pace(Math.abs(this.x - before.x) + Math.abs(this.y - before.y));
    this.leaveOrCross();
  }

  // Section 2.
  private readKeys(keys: number): void {
    const before = this.held;
    const rawBefore = this.raw;
    this.held = [0, 1, 2, 3].map((i) => (keys & (1 << i)) !== 0);
    this.pressed = this.held.map((held, i) => held && !before[i]!);
    this.pressed.forEach((pressed, i) => {
      if (pressed) this.rank[i] = this.frame * 4 + i;
    });
    this.raw = [this.axisIntent(0), this.axisIntent(2)];
    this.choosePreferred();
    const tapped = DIRECTIONS.some(([axis, sign], i) => this.pressed[i]! && this.raw[axis === "x" ? 0 : 1] === sign);
    if (tapped || !same(this.raw, rawBefore)) this.timer = same(this.raw, NONE) ? null : this.frame;
  }

  private axisIntent(first: number): number {
    const [less, more] = [this.held[first]!, this.held[first + 1]!];
    if (less !== more) return less ? -1 : 1;
    if (!less || this.rules.input.opposites === "cancel") return 0;
    const laterIsMore = this.rank[first + 1]! > this.rank[first]!;
    return laterIsMore === (this.rules.input.opposites === "latest") ? 1 : -1;
  }

  private choosePreferred(): void {
    const { ways, prefer } = this.rules.input;
    let [x, y] = this.raw;
    this.second = NONE;
    if (ways === 4 && this.rules.gait === "hop") {
      // A tap moves where it points.
      const tapX = x !== 0 && this.pressed[x < 0 ? 0 : 1]!;
      const tapY = y !== 0 && this.pressed[y < 0 ? 2 : 3]!;
      if (tapX || tapY) [x, y] = [tapX ? x : 0, tapY ? y : 0];
    }
    this.intent = [x, y];
    if (ways === 8 || x === 0 || y === 0) return;
    const later = this.rank[x < 0 ? 0 : 1]! > this.rank[y < 0 ? 2 : 3]!;
    const onX = prefer === "horizontal" || (prefer === "latest" && later);
    this.intent = onX ? [x, 0] : [0, y];
    this.second = onX ? [0, y] : [x, 0];
  }

  // Section 3.
  private free({ x, y }: Place): boolean {
    return !this.near(x, y, 2).some((shape) => meets(this.c.ground, shape, x, y));
  }

  /** The shapes within some cells of a place; without doors they are always the same. */
  private near(x: number, y: number, cells: number): readonly OneShape[] {
    const key = `${Math.floor(x / this.tile)},${Math.floor(y / this.tile)},${cells}`;
    let found = this.shapes.get(key);
    if (found === undefined) this.shapes.set(key, (found = shapesNear(this.c.ground, 0, x, y, cells)));
    return found;
  }

  // Section 4.5.
  private candidates(slide: boolean): Way[] {
    const [x, y] = this.intent;
    if (this.rules.input.ways === 8 && x !== 0 && y !== 0)
      return slide
        ? [
            [x, y],
            [x, 0],
            [0, y],
          ]
        : [[x, y]];
    return [this.intent, ...(slide ? [this.second] : [])].filter((way) => !same(way, NONE));
  }

  private mayGo([x, y]: Way, cutCorners: boolean): boolean {
    const at = (dx: number, dy: number): Place => ({ x: this.x + dx * this.tile, y: this.y + dy * this.tile });
    const corners = x !== 0 && y !== 0 && !cutCorners ? [at(x, 0), at(0, y)] : [];
    return [at(x, y), ...corners].every((place) => this.free(place));
  }

  // Section 4.1.
  private hop(): void {
    const { repeatAfter, repeatEvery, slide, cutCorners } = this.rules.hop;
    const tapped = DIRECTIONS.some(([axis, sign], i) => this.pressed[i]! && this.raw[axis === "x" ? 0 : 1] === sign);
    const since = this.timer === null ? 0 : this.frame - this.timer;
    const again =
      repeatAfter > 0 &&
      since >= repeatAfter &&
      (since === repeatAfter || (repeatEvery > 0 && (since - repeatAfter) % repeatEvery === 0));
    if (!tapped && !again) return;
    const found = this.candidates(slide).find((way) => this.mayGo(way, cutCorners));
    if (found === undefined) this.bumping = !same(this.intent, NONE);
    else this.go(found, this.tile);
  }

  private go(way: Way, units: number): void {
    this.x += way[0] * units;
    this.y += way[1] * units;
    this.wentWay = way;
  }

  // Section 4.2.
  private glide(): void {
    const { arrive, carry, reverse } = this.rules.glide;
    const speed = units(this.rules.glide.speed);
    const begunWithLeg = this.leg !== null;
    let turned: Way = NONE;
    if (
      this.leg !== null &&
      reverse &&
      arrive === "land" &&
      same(this.raw, [-this.leg.way[0] || 0, -this.leg.way[1] || 0]) &&
      this.free(this.leg.from)
    ) {
      const { way, gone } = this.leg;
      const end = { x: this.x + way[0] * (this.tile - gone), y: this.y + way[1] * (this.tile - gone) };
      turned = [-way[0] || 0, -way[1] || 0];
      this.leg = { way: turned, gone: this.tile - gone, from: end };
      if (!same(this.last, NONE)) this.last = turned;
    }
    if (begunWithLeg) {
      this.pressed.forEach((pressed, i) => {
        const [axis, sign] = DIRECTIONS[i]!;
        const along = turned[axis === "x" ? 0 : 1] === sign;
        if (pressed && !along) this.buffered = { way: i, frame: this.frame };
      });
    }
    let budget = speed;
    for (let choices = 0; budget > 0 && choices < 1000; choices++) {
      if (this.leg === null && !this.choose()) return;
      const leg: { way: Way; gone: number } = this.leg!;
      let spent = 0;
      while (spent < budget && !(arrive === "land" && leg.gone === this.tile)) {
        this.go(leg.way, 1);
        leg.gone++;
        spent++;
      }
      budget -= spent;
      if (arrive === "equal" ? leg.gone !== this.tile : leg.gone < this.tile) return;
      this.leg = null;
      if (arrive !== "land" || !carry) return;
    }
  }

  private choose(): boolean {
    const { slide, cutCorners, bufferFrames, keepGoing } = this.rules.glide;
    const candidates = this.candidates(slide);
    const kept = this.buffered;
    this.buffered = null;
    if (kept !== null && bufferFrames > 0 && this.frame - kept.frame <= bufferFrames && !this.held[kept.way]!) {
      const [axis, sign] = DIRECTIONS[kept.way]!;
      candidates.unshift(axis === "x" ? [sign, 0] : [0, sign]);
    }
    if (keepGoing && !same(this.last, NONE)) candidates.push(this.last);
    const found = candidates.find((way) => this.mayGo(way, cutCorners));
    if (found === undefined) {
      this.last = NONE;
      this.bumping = !same(this.intent, NONE);
      return false;
    }
    this.last = found;
    this.leg = { way: found, gone: 0, from: { x: this.x, y: this.y } };
    return true;
  }

  // Sections 4.3 and 4.4.
  private roam(): void {
    const { speedX, speedY, diagonal } = this.rules.roam;
    const even = diagonal === "even" && this.intent[0] !== 0 && this.intent[1] !== 0;
    const one = (way: number, speed: number): number =>
      way * (even ? Math.trunc((units(speed) * 181) / 256) : units(speed));
    this.moveFreely(one(this.intent[0], speedX), one(this.intent[1], speedY), this.rules.roam);
  }

  private drift(): void {
    const { accel, drag, maxSpeed, diagonal } = this.rules.drift;
    const even = diagonal === "even" && this.intent[0] !== 0 && this.intent[1] !== 0;
    const max = units(maxSpeed);
    for (const [axis, i] of [
      ["x", 0],
      ["y", 1],
    ] as const) {
      const push = even ? Math.trunc((this.intent[i] * units(accel) * 181) / 256) : this.intent[i] * units(accel);
      const dragged = Math.trunc(((this.velocity[axis] + push) * (256 - drag)) / 256) || 0;
      this.velocity[axis] = Math.min(Math.max(dragged, -max), max);
    }
    const stopped = this.moveFreely(this.velocity.x, this.velocity.y, this.rules.drift);
    for (const axis of stopped) this.velocity[axis] = 0;
  }

  /** Moves by a displacement; gives back the axes that travelled less. */
  private moveFreely(dx: number, dy: number, free: Rules["roam"] | Rules["drift"]): Axis[] {
    const wanted = { x: dx, y: dy };
    const axes: readonly Axis[] = free.axisOrder === "x-first" ? ["x", "y"] : ["y", "x"];
    const along = { x: 0, y: 0 };
    let helped = false;
    if (free.response === "undo-both") {
      const end = { x: this.x + dx, y: this.y + dy };
      if (this.free(end)) {
        Object.assign(this, end);
        Object.assign(along, wanted);
      }
    } else {
      for (const axis of axes) {
        if (wanted[axis] === 0) continue;
        const from: Place = { x: this.x, y: this.y };
        const { place, travelled, slid } = this.one(axis, wanted[axis], free);
        Object.assign(this, place);
        along[axis] = travelled;
        helped ||=
          slid &&
          (place.x !== from.x || place.y !== from.y) &&
          place[axis === "x" ? "y" : "x"] !== from[axis === "x" ? "y" : "x"];
      }
    }
    if (free.response === "contact") helped = this.nudge(wanted, along, free.nudge) || helped;
    const less = axes.filter((axis) => Math.abs(along[axis]) < Math.abs(wanted[axis]));
    this.bumping =
      !helped &&
      less.some(
        (axis) =>
          Math.sign(wanted[axis]) === this.intent[axis === "x" ? 0 : 1] && this.intent[axis === "x" ? 0 : 1] !== 0,
      );
    return less;
  }

  private one(
    axis: Axis,
    way: number,
    free: Rules["roam"] | Rules["drift"],
  ): { place: Place; travelled: number; slid: boolean } {
    const sign = Math.sign(way);
    const from: Place = { x: this.x, y: this.y };
    const at = (n: number): Place => ({ ...from, [axis]: from[axis] + sign * n });
    const whole = Math.abs(way);
    switch (free.response) {
      case "undo-axis":
        return this.free(at(whole))
          ? { place: at(whole), travelled: way, slid: false }
          : { place: from, travelled: 0, slid: false };
      case "ahead":
        return this.free(at(units(free.aheadPx)))
          ? { place: at(whole), travelled: way, slid: false }
          : { place: from, travelled: 0, slid: false };
      case "snap": {
        const met = this.counting(from).filter((shape) => meets(this.c.ground, shape, at(whole).x, at(whole).y));
        let n = whole;
        while (n > 0 && met.some((shape) => meetsBoxOf(this.c.ground, shape, at(n).x, at(n).y))) n--;
        return { place: at(n), travelled: sign * n, slid: false };
      }
      default:
        return this.contact(axis, way, free.slopes === "slide");
    }
  }

  private counting(from: Place): OneShape[] {
    // A displacement has less than two cells, and the body ends less than one off its frame-square.
    return counting(this.c.ground, this.near(from.x, from.y, 4), from.x, from.y);
  }

  private contact(axis: Axis, way: number, slopes: boolean): { place: Place; travelled: number; slid: boolean } {
    const from: Place = { x: this.x, y: this.y };
    const other: Axis = axis === "x" ? "y" : "x";
    const sign = Math.sign(way);
    const whole = Math.abs(way);
    const at = (n: number): Place => ({ ...from, [axis]: from[axis] + sign * n });
    const shapes = this.counting(from);
    const stops = (place: Place): OneShape[] => shapes.filter((shape) => meets(this.c.ground, shape, place.x, place.y));
    let gone = 0;
    while (gone < whole && stops(at(gone + 1)).length === 0) gone++;
    let place = at(gone);
    if (!slopes || gone === whole || !stops(at(gone + 1)).some(({ shape }) => shape.kind === "poly"))
      return { place, travelled: sign * gone, slid: false };
    let slid = false;
    while (gone < whole) {
      const stride = Math.min(256, whole - gone);
      const ahead: Place = { ...place, [axis]: place[axis] + sign * stride };
      const found = Array.from({ length: stride + 1 }, (_, k) => [-k, k])
        .flat()
        .map((aside): Place => ({ ...ahead, [other]: ahead[other] + aside }))
        .find((tried) => this.free(tried));
      if (found === undefined) break;
      place = found;
      gone += stride;
      slid = true;
    }
    return { place, travelled: sign * gone, slid };
  }

  private nudge(wanted: Record<Axis, number>, along: Record<Axis, number>, max: number): boolean {
    const [ix, iy] = this.intent;
    if ((ix === 0) === (iy === 0)) return false;
    const axis: Axis = ix !== 0 ? "x" : "y";
    const other: Axis = axis === "x" ? "y" : "x";
    const way = axis === "x" ? ix : iy;
    if (Math.sign(wanted[axis]) !== way || along[axis] !== 0) return false;
    const ahead = Math.min(256, Math.abs(wanted[axis])) * way;
    for (let k = 1; k <= max; k++) {
      for (const sign of [-1, 1]) {
        const tried: Place = { x: this.x, y: this.y, [other]: this[other] + sign * k * 256 };
        if (!this.free({ ...tried, [axis]: tried[axis] + ahead })) continue;
        const { place, travelled } = this.contact(other, sign * Math.min(Math.abs(wanted[axis]), k * 256), false);
        Object.assign(this, place);
        return travelled !== 0;
      }
    }
    return false;
  }

  // Section 5.
  private face(): void {
    const { facing } = this.rules;
    const [dx, dy] = same(this.wentWay, NONE) ? this.intent : this.wentWay;
    if (dx === 0 && dy === 0) {
      if (facing.idle === "reset") this.facing = facing.rest;
      return;
    }
    const horizontal = dx < 0 ? "left" : "right";
    const vertical = dy < 0 ? "up" : "down";
    if (dx === 0 || dy === 0) this.facing = dx === 0 ? vertical : horizontal;
    else if (facing.ways === 8) this.facing = `${vertical}-${horizontal}`;
    else if (facing.tie === "keep")
      this.facing = this.facing === horizontal || this.facing === vertical ? this.facing : horizontal;
    else this.facing = facing.tie === "horizontal" ? horizontal : vertical;
  }

  private pace(moved: number): void {
    const { images, advance, every, idleImage, idleAfter } = this.rules.pose;
    if (advance === "off") return;
    if (moved > 0) {
      this.stood = 0;
      this.counter += advance === "distance" ? moved : 1;
      this.pose = Math.floor(this.counter / (advance === "distance" ? every * 256 : every)) % images;
    } else if (++this.stood >= Math.max(idleAfter, 1)) {
      this.pose = idleImage;
      this.counter = 0;
    }
  }

  // Sections 4.7 and 7.
  private leaveOrCross(): void {
    const [room] = this.c.world.rooms;
    const size = { x: room!.width * this.tile, y: room!.height * this.tile };
    if (room!.edges.north instanceof Array || room!.edges.north.kind === "wall") {
      this.escaped = this.x <= -this.tile || this.y <= -this.tile || this.x >= size.x || this.y >= size.y;
      return;
    }
    for (let crossings = 0; crossings < 2; crossings++) {
      const beyond = (["x", "y"] as const).find(
        (axis) => this[axis] + this.tile / 2 < 0 || this[axis] + this.tile / 2 >= size[axis],
      );
      if (beyond === undefined) return;
      const shift = this[beyond] < 0 ? size[beyond] : -size[beyond];
      this[beyond] += shift;
      if (this.leg !== null) this.leg.from = { ...this.leg.from, [beyond]: this.leg.from[beyond] + shift };
    }
  }
}

const units = (px: number): number => Math.floor(px * 256 + 0.5);
