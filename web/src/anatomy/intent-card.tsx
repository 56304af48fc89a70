import { Arrow, directionWord } from "./arrow.tsx";
import type { CardProps } from "./card-props.ts";
import { Settings } from "./settings.tsx";
import { StageCard } from "./stage-card.tsx";

/** The direction that was made of the buttons, and for the gaits of the grid the candidates in the order tried. */
export function IntentCard({ rules, explanation }: CardProps) {
  const [x, y] = explanation?.intent ?? [0, 0];
  const idle = x === 0 && y === 0;
  const candidates = explanation?.choices.flat() ?? [];
  const [rawX, rawY] = explanation?.raw ?? [0, 0];
  return (
    <StageCard
      name="Intent"
      idle={idle}
      value={
        <>
          <Arrow x={x} y={y} />
          {directionWord([x, y])}
          <span className="mono quiet">
            ({String(x).padStart(2)}, {String(y).padStart(2)})
          </span>
        </>
      }
    >
      <Settings rules={rules} stage="intent" />
      {(rawX !== x || rawY !== y) && <p className="fact">held {directionWord([rawX, rawY])}, one axis counts</p>}
      {candidates.length > 0 && (
        <ol className="candidates" aria-label="Directions in the order tried">
          {candidates.map(({ source, dx, dy, taken }, i) => (
            <li key={`${i}${source}`} className={taken ? "taken" : ""}>
              <span className="quiet">{source}</span> {directionWord([dx, dy])}{" "}
              <span className={taken ? "" : "attention"}>{taken ? "taken" : "blocked"}</span>
            </li>
          ))}
        </ol>
      )}
    </StageCard>
  );
}
