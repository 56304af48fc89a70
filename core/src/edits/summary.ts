import { checkText } from "../checks/check.ts";
import { ACCEPTED } from "../logs/accept-log.ts";
import { logFrames } from "../logs/input-log.ts";
import { readLog } from "../logs/read-log.ts";
import { settingByPath } from "../world/settings.ts";
import type { World } from "../world/world.ts";
import type { Json } from "../world/parts.ts";
import { partAddress } from "../world/parts.ts";
import type { Actor } from "../world/actors.ts";
import { actorsChanged } from "./actor-words.ts";
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
      return logSummary(step.log, step.before, step.after);
    case "add-log":
      return `log ${step.log} kept`;
    case "remove-log":
      return `log ${step.log} deleted`;
  }
}

/** What became of a log, in words: `log crank-first: accepted as it walks`. */
function logSummary(id: string, before: string, after: string): string {
  const [was, is] = [readLog(before), readLog(after)];
  const [checksWere, checksAre] = [was.checks.map(checkText), is.checks.map(checkText)];
  const said = [
    ...(was.title === is.title ? [] : [is.title === null ? "no title" : `titled ${is.title}`]),
    ...checksAre.filter((check) => !checksWere.includes(check)).map((check) => `check ${check}`),
    ...checksWere.filter((check) => !checksAre.includes(check)).map((check) => `no longer ${check}`),
    ...(was.accept === is.accept ? [] : [is.accept === null ? "no longer accepted" : acceptedText(is.notes)]),
    ...(was.rules === is.rules ? [] : [`rules ${is.rules ?? "as the world's"}`]),
    ...(JSON.stringify(was.lines) === JSON.stringify(is.lines)
      ? []
      : [`keys, ${logFrames(was)} to ${logFrames(is)} frames`]),
    ...(JSON.stringify([was.tags, was.notes]) === JSON.stringify([is.tags, is.notes]) || was.accept !== is.accept
      ? []
      : ["tags or notes"]),
  ];
  return `log ${id}${said.length === 0 ? " changed" : `: ${listed(said)}`}`;
}

/** An accepted walk has its reason among the log's notes. */
function acceptedText(notes: readonly string[]): string {
  const reason = notes.find((note) => note.startsWith(ACCEPTED));
  return reason === undefined ? "accepted as it walks" : `accepted as it walks, ${reason.slice(ACCEPTED.length)}`;
}

const MOST_NAMED = 6;

function listed(texts: readonly string[]): string {
  return texts.length <= MOST_NAMED
    ? texts.join("; ")
    : `${texts.slice(0, MOST_NAMED).join("; ")}; ${texts.length - MOST_NAMED} more`;
}

function partSummary(world: World, part: string, before: Json, after: Json): string {
  const address = partAddress(part);
  switch (address?.kind) {
    case "order":
      return `order of ${address.list}`;
    case "thing": {
      const { name = address.id } = (after ?? before) as { readonly name?: string };
      return `${SINGULAR[address.list]} ${name} ${before === null ? "added" : after === null ? "deleted" : "changed"}`;
    }
    case "of-room":
      return `${world.rooms.find((room) => room.id === address.room)?.name ?? address.room}: ${ofRoomText(address.key, before, after)}`;
    default: {
      const [was, is] = [shortText(before), shortText(after)];
      return was !== null && is !== null ? `${part} ${was} to ${is}` : part;
    }
  }
}

/** What became of its actors; the name alone of other parts of a room. */
function ofRoomText(key: string, before: Json, after: Json): string {
  if (key !== "actors") return key;
  const said = actorsChanged(before as unknown as Actor[], after as unknown as Actor[]);
  return said.length === 0 ? "order of actors" : listed(said);
}

const SINGULAR = {
  sheets: "sheet",
  tiles: "tile",
  items: "item",
  rules: "rules",
  games: "game",
  rooms: "room",
} as const;

function shortText(value: Json): string | null {
  return value === null || typeof value === "object" ? null : String(value);
}
