import type { Game } from "@keen-pebble/core/world";
import { ANCHORS, GAME_UNITS } from "@keen-pebble/core/world";
import { SelectField } from "./select-field.tsx";

const UNIT_NAMES: Readonly<Record<Game["unit"], string>> = {
  px: "px",
  units: "units (1/256 px)",
  cells: "cells",
};

const ANCHOR_NAMES: Readonly<Record<Game["anchor"], string>> = {
  corner: "square, corner",
  centre: "square, centre",
  "body-corner": "body, corner",
  "body-centre": "body, centre",
};

/** Px that a walk may be off, to choose from. */
const TOLERANCES = [0, 0.5, 1, 2, 4];

interface Props {
  readonly game: Game;
  readonly onAnswer: (answer: Partial<Pick<Game, "unit" | "anchor" | "yUp" | "tolerance">>) => void;
}

/** What a game's places mean: unit, what a position names, which way y grows, and how far off it may be. */
export function PlaceAnswers({ game, onAnswer }: Props) {
  const tolerances = [...new Set([...TOLERANCES, game.tolerance])].sort((a, b) => a - b);
  return (
    <>
      <SelectField
        label="Unit"
        value={game.unit}
        choices={GAME_UNITS.map((unit) => [unit, UNIT_NAMES[unit]] as const)}
        onValue={(unit) => onAnswer({ unit: unit as Game["unit"] })}
      />
      <SelectField
        label="Names the"
        value={game.anchor}
        choices={ANCHORS.map((anchor) => [anchor, ANCHOR_NAMES[anchor]] as const)}
        onValue={(anchor) => onAnswer({ anchor: anchor as Game["anchor"] })}
      />
      <SelectField
        label="y grows"
        value={game.yUp ? "up" : "down"}
        choices={["down", "up"]}
        onValue={(way) => onAnswer({ yUp: way === "up" })}
      />
      <SelectField
        label="Tolerance"
        value={String(game.tolerance)}
        choices={tolerances.map((px) => [String(px), `${px} px`] as const)}
        onValue={(px) => onAnswer({ tolerance: Number(px) })}
      />
    </>
  );
}
