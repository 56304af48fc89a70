import { settingByPath } from "../world/settings.ts";
import type { World } from "../world/world.ts";
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
    case "add-log":
      return `log ${step.log} kept`;
    case "remove-log":
      return `log ${step.log} taken away`;
  }
}
