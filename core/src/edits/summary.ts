import { settingByPath } from "../world/settings.ts";
import type { World } from "../world/world.ts";
import type { Json } from "./parts.ts";
import { partAddress } from "./parts.ts";
import type { EditStep } from "./step.ts";

/** A revision in the words of the job: `Main: speed 2 to 3`, `Intake hall: 14 cells` (interface.md, Journal). */
export function summary(world: World, steps: readonly EditStep[]): string {
  return steps.map((step) => stepSummary(world, step)).join("; ") || "nothing changed";
}

function stepSummary(world: World, step: EditStep): string {
  switch (step.kind) {
    case "set-cells": {
      const name = world.rooms.find((room) => room.id === step.room)?.name ?? step.room;
      return `${name}: ${step.cells.length} ${step.cells.length === 1 ? "cell" : "cells"}`;
    }
    case "change-rules": {
      const name = world.rules.find((rules) => rules.id === step.rules)?.name ?? step.rules;
      const label = settingByPath(step.setting)?.label.toLowerCase() ?? step.setting;
      return `${name}: ${label} ${String(step.before)} to ${String(step.after)}`;
    }
    case "change-parts":
      return listed(step.parts.map(({ part, before, after }) => partSummary(world, part, before, after)));
    case "change-log":
      return `log ${step.log} changed`;
    case "add-log":
      return `log ${step.log} kept`;
    case "remove-log":
      return `log ${step.log} taken away`;
  }
}

const MOST_NAMED = 6;

function listed(texts: readonly string[]): string {
  return texts.length <= MOST_NAMED ? texts.join("; ") : `${texts.slice(0, MOST_NAMED).join("; ")}; ${texts.length - MOST_NAMED} more`;
}

function partSummary(world: World, part: string, before: Json, after: Json): string {
  const address = partAddress(part);
  switch (address?.kind) {
    case "order":
      return `order of ${address.list}`;
    case "thing": {
      const { name = address.id } = (after ?? before) as { readonly name?: string };
      return `${SINGULAR[address.list]} ${name} ${before === null ? "added" : after === null ? "taken away" : "changed"}`;
    }
    case "of-room":
      return `${world.rooms.find((room) => room.id === address.room)?.name ?? address.room}: ${address.key}`;
    default: {
      const [was, is] = [shortText(before), shortText(after)];
      return was !== null && is !== null ? `${part} ${was} to ${is}` : part;
    }
  }
}

const SINGULAR = { sheets: "sheet", tiles: "tile", items: "item", rules: "rules", rooms: "room" } as const;

function shortText(value: Json): string | null {
  return value === null || typeof value === "object" ? null : String(value);
}
