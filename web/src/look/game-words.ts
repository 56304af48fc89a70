import type { Game } from "@keen-pebble/core/world";

/** What the units of a game's places are called. */
export const UNIT_NAMES: Readonly<Record<Game["unit"], string>> = {
  px: "px",
  units: "units (1/256 px)",
  cells: "cells",
};

/** What a game's place may name. */
export const ANCHOR_NAMES: Readonly<Record<Game["anchor"], string>> = {
  corner: "square, corner",
  centre: "square, centre",
  "body-corner": "body, corner",
  "body-centre": "body, centre",
};
