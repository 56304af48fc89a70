import type { Explanation, Rules } from "@keen-pebble/core";
import { FACINGS, keysText, rulesById } from "@keen-pebble/core";
import { useBench, useProject } from "../session/hooks.ts";
import { ContactCard } from "./contact-card.tsx";
import { MotionCard } from "./motion-card.tsx";
import { SettingField } from "./setting-field.tsx";
import { StageCard } from "./stage-card.tsx";

/** The six stages that the shown frame went through, each with its settings and its values. */
export function Anatomy() {
  const world = useProject((state) => state.project?.world ?? null);
  const ruleset = useBench((state) => state.walk?.log.rules ?? state.parsed?.rules ?? null);
  const explanation = useBench((state) => state.explanation);
  if (world === null) return null;
  const rules = rulesById(world, ruleset ?? world.activeRules) ?? world.rules[0]!;
  return (
    <section className="anatomy" aria-label="Frame anatomy">
      <div className="head">
        <h2>Frame anatomy</h2>
        <span className="grow" />
        <span className="quiet">Rules</span> {rules.name}
      </div>
      <div className="stages">
        <InputCard rules={rules} explanation={explanation} />
        <IntentCard rules={rules} explanation={explanation} />
        <MotionCard rules={rules} explanation={explanation} tileSize={world.tileSize} />
        <ContactCard rules={rules} explanation={explanation} world={world} />
        <AftermathCard explanation={explanation} />
        <PoseCard rules={rules} explanation={explanation} />
      </div>
    </section>
  );
}

interface CardProps {
  readonly rules: Rules;
  readonly explanation: Explanation | null;
}

function InputCard({ rules, explanation }: CardProps) {
  const held = explanation?.held ?? 0;
  const pressed = explanation?.pressed ?? 0;
  const names = ["L", "R", "U", "D", "A", "B"];
  return (
    <StageCard
      name="Input"
      idle={held === 0}
      value={
        <span className="buttons" role="img" aria-label={`held ${keysText(held)}, pressed ${keysText(pressed)}`} title="held: filled; pressed in this frame: ringed">
          {names.map((name, i) => (
            <i key={name} className={`button${held & (1 << i) ? " held" : ""}${pressed & (1 << i) ? " pressed" : ""}`} aria-hidden="true">
              {name}
            </i>
          ))}
        </span>
      }
    >
      <div className="two">
        <SettingField rules={rules} path="input.opposites" />
        <SettingField rules={rules} path="input.ways" />
      </div>
    </StageCard>
  );
}

const WORDS = [
  ["up-left", "up", "up-right"],
  ["left", "none", "right"],
  ["down-left", "down", "down-right"],
] as const;

function IntentCard({ rules, explanation }: CardProps) {
  const [x, y] = explanation?.intent ?? [0, 0];
  const idle = x === 0 && y === 0;
  return (
    <StageCard
      name="Intent"
      idle={idle}
      value={
        <>
          {!idle && <Arrow x={x} y={y} />}
          {WORDS[y + 1]![x + 1]}
          <span className="mono quiet">
            ({String(x).padStart(2)}, {String(y).padStart(2)})
          </span>
        </>
      }
    >
      {rules.gait === "glide" ? (
        <div className="three">
          <SettingField rules={rules} path="input.prefer" />
          <SettingField rules={rules} path="glide.bufferFrames" />
          <SettingField rules={rules} path="glide.slide" />
        </div>
      ) : (
        <div className="two">
          <SettingField rules={rules} path="input.prefer" />
        </div>
      )}
    </StageCard>
  );
}

function Arrow({ x, y }: { readonly x: number; readonly y: number }) {
  const angle = (Math.atan2(y, x) * 180) / Math.PI;
  return (
    <svg className="intent-arrow" viewBox="-12 -8 24 16" aria-hidden="true">
      <path d="M-9 0H8M3-5 8 0 3 5" transform={`rotate(${angle})`} />
    </svg>
  );
}

function AftermathCard({ explanation }: { readonly explanation: Explanation | null }) {
  const events = explanation?.events ?? [];
  const ended = explanation !== null && explanation.status !== "playing";
  return (
    <StageCard
      name="Aftermath"
      idle={events.length === 0}
      value={
        <>
          {events.length === 0 && <span className="quiet">no event</span>}
          {events.map((event, i) => (
            <span key={`${i}${event}`} className={`pill${ended ? " bad" : ""}`}>
              {event}
            </span>
          ))}
        </>
      }
    />
  );
}

function PoseCard({ rules, explanation }: CardProps) {
  return (
    <StageCard
      name="Pose"
      idle={!(explanation?.moving ?? false)}
      value={
        explanation === null ? null : (
          <>
            {FACINGS[explanation.facing]}
            <span className="mono quiet">image {explanation.pose}</span>
          </>
        )
      }
    >
      <div className="two">
        <SettingField rules={rules} path="facing.idle" />
        <SettingField rules={rules} path="facing.ways" />
      </div>
    </StageCard>
  );
}
