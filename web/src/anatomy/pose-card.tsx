import type { World } from "@keen-pebble/core/world";
import { FACINGS } from "@keen-pebble/core/world";
import { WalkerImage } from "../field/walker-image.tsx";
import type { CardProps } from "./card-props.ts";
import { directionWord } from "./arrow.tsx";
import { Settings } from "./settings.tsx";
import { StageCard } from "./stage-card.tsx";

interface Props extends CardProps {
  readonly world: World;
}

/** The image that is shown in the frame, and why it is that one. */
export function PoseCard({ rules, explanation, world }: Props) {
  return (
    <StageCard
      name="Pose"
      idle={!(explanation?.moving ?? false)}
      value={
        explanation === null ? null : (
          <>
            <WalkerImage world={world} facing={FACINGS[explanation.facing]!} pose={explanation.pose} size={20} />
            {FACINGS[explanation.facing]}
            <span className="mono quiet">image {explanation.pose}</span>
          </>
        )
      }
    >
      {explanation !== null && <p className="fact">{whyText({ rules, explanation })}</p>}
      <Settings rules={rules} stage="pose" />
    </StageCard>
  );
}

function whyText({
  rules,
  explanation,
}: CardProps & { readonly explanation: NonNullable<CardProps["explanation"]> }): string {
  const { facing, pose } = rules;
  const went = explanation.pieces.find(({ what }) => what === "leg" || what === "hop");
  const idle = explanation.intent[0] === 0 && explanation.intent[1] === 0;
  const way =
    facing.source === "pointer"
      ? explanation.hasPointer
        ? "Faces the pointer"
        : "No pointer: facing stays"
      : went !== undefined
        ? `Faces the way it went, ${directionWord([went.dx, went.dy])}`
        : !idle
          ? `Faces the intent, ${directionWord(explanation.intent)}`
          : facing.idle === "keep"
            ? "No intent: facing stays"
            : `No intent: facing is reset to ${facing.rest}`;
  const per = pose.advance === "distance" ? `px walked` : "frames moved";
  const image =
    pose.advance === "off"
      ? "images do not advance"
      : explanation.moving
        ? `image ${explanation.pose} of ${pose.images}: one on every ${pose.every} ${per}`
        : explanation.stillFrames >= pose.idleAfter
          ? `still for ${explanation.stillFrames} frames: idle image ${pose.idleImage}`
          : `still for ${explanation.stillFrames} of ${pose.idleAfter} frames: image stays`;
  return `${way}; ${image}.`;
}
