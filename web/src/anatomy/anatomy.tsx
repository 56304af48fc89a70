import { rulesById } from "@keen-pebble/core/world";
import { useBench, useProject } from "../use-session.ts";
import { AftermathCard } from "./aftermath-card.tsx";
import { BesideTable } from "./beside.tsx";
import { ContactCard } from "./contact-card.tsx";
import { Findings } from "./findings.tsx";
import { GameBeside } from "./game-beside.tsx";
import { InputCard } from "./input-card.tsx";
import { IntentCard } from "./intent-card.tsx";
import { MotionCard } from "./motion-card.tsx";
import { PoseCard } from "./pose-card.tsx";
import { RulesMenu } from "./rules-menu.tsx";
import "./anatomy.css";

/**
 * The six stages that the shown frame went through, each with its settings and its values. The values are new in each frame:
 * what one sets is drawn again only where the rules are others (`memo`).
 */
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
        <RulesMenu world={world} rules={rules} />
      </div>
      <div className="stages">
        <BesideTable world={world} rules={rules} />
        <GameBeside world={world} />
        <Findings rules={rules} />
        <InputCard rules={rules} explanation={explanation} />
        <IntentCard rules={rules} explanation={explanation} />
        <MotionCard rules={rules} explanation={explanation} tileSize={world.tileSize} />
        <ContactCard rules={rules} explanation={explanation} world={world} />
        <AftermathCard explanation={explanation} />
        <PoseCard rules={rules} explanation={explanation} world={world} />
      </div>
    </section>
  );
}
