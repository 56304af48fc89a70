import { keysText } from "@keen-pebble/core/world";
import type { CardProps } from "./card-props.ts";
import { Settings } from "./settings.tsx";
import { StageCard } from "./stage-card.tsx";

const NAMES = ["L", "R", "U", "D", "A", "B"];

/** The buttons held and pressed in the shown frame. */
export function InputCard({ rules, explanation }: CardProps) {
  const held = explanation?.held ?? 0;
  const pressed = explanation?.pressed ?? 0;
  return (
    <StageCard
      name="Input"
      idle={held === 0}
      value={
        <span
          className="buttons"
          role="img"
          aria-label={`held ${keysText(held)}, pressed ${keysText(pressed)}`}
          title="held: filled; pressed in this frame: ringed"
        >
          {NAMES.map((name, i) => (
            <i
              key={name}
              className={`button${held & (1 << i) ? " held" : ""}${pressed & (1 << i) ? " pressed" : ""}`}
              aria-hidden="true"
            >
              {name}
            </i>
          ))}
        </span>
      }
    >
      <Settings rules={rules} stage="input" />
    </StageCard>
  );
}
