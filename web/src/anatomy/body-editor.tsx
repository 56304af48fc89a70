import { session } from "../page-session.ts";
import type { Body, Rules, World, Pair } from "@keen-pebble/core/world";
import { bodyText } from "@keen-pebble/core/analyse";
import { bodyReach } from "@keen-pebble/core/formats";
import { FLUSH, LIMITS, settingSays, valueSays } from "@keen-pebble/core/world";
import { memo, useState } from "react";
import { Icon } from "../look/icon.tsx";
import type { NumberRange } from "../look/number-field.tsx";
import { NumberField } from "../look/number-field.tsx";
import { SelectField } from "../look/select-field.tsx";
import { Segments } from "../look/segments.tsx";
import { BareButton } from "../look/bare-button.tsx";
import { Hinted } from "./hinted.tsx";
import { ShownMoving } from "./shown-moving.tsx";

/** What blocks the walker and what of it collides, as numbers; the field's handles change the same. */
export const BodyEditor = memo(function BodyEditor({ rules, world }: { readonly rules: Rules; readonly world: World }) {
  const [open, setOpen] = useState(false);
  const { body, blockedBy } = rules.walker;
  const change = (after: Body, stroke?: string): boolean =>
    session.ruleSets.changeRules(rules.id, { path: "walker.body", value: after }, stroke);
  return (
    <>
      <BlockedBy world={world} blockedBy={blockedBy} rules={rules} />
      <div className="two settings">
        <button
          type="button"
          className="labelled toggle body-toggle"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          Body
          <span className="mono">{bodyText(body)}</span>
        </button>
        {body.kind === "box" && (
          <Hinted path={FLUSH} says={<FlushHint value={body.flush} />}>
            <SelectField
              label="Flush"
              value={body.flush}
              choices={["free", "blocks"]}
              onValue={(flush) => change({ ...body, flush: flush as Body["flush"] })}
            />
          </Hinted>
        )}
      </div>
      {open && (
        <div className="body-editor">
          <Segments
            label="Kind of body"
            value={body.kind}
            choices={[
              { value: "box", name: "Box" },
              { value: "probes", name: "Probes" },
            ]}
            onValue={() => change(body.kind === "box" ? probesOf(body) : boxOf(body, world.tileSize))}
          />
          {body.kind === "box" ? (
            <BoxFields body={body} onBody={change} tileSize={world.tileSize} />
          ) : (
            <ProbeFields body={body} onBody={change} tileSize={world.tileSize} />
          )}
        </div>
      )}
    </>
  );
});

/** The flags of the world as toggles: those that stop the walker are on. */
function BlockedBy({
  world,
  blockedBy,
  rules,
}: {
  readonly world: World;
  readonly blockedBy: readonly string[];
  readonly rules: Rules;
}) {
  return (
    <div className="blocked-by" role="group" aria-label="Blocked by">
      <span className="quiet">Blocked by</span>
      {world.flags.map((flag) => {
        const on = blockedBy.includes(flag);
        return (
          <button
            key={flag}
            type="button"
            className="flag-toggle"
            aria-pressed={on}
            onClick={() =>
              session.ruleSets.changeRules(rules.id, {
                path: "walker.blockedBy",
                value: on ? blockedBy.filter((each) => each !== flag) : [...blockedBy, flag],
              })
            }
          >
            {flag}
          </button>
        );
      })}
      {world.flags.length === 0 && <span className="quiet">no flags yet</span>}
    </div>
  );
}

type OnBody = (after: Body, stroke?: string) => boolean;

/** What one of a box's numbers may be, the others being as they are. */
function boxRange(box: readonly number[], i: number, tileSize: number): NumberRange {
  const [min, max] = bodyReach(tileSize);
  return i < 2 ? { min, max: max - box[i + 2]!, whole: true } : { min: 1, max: max - box[i - 2]!, whole: true };
}

function BoxFields({
  body,
  onBody,
  tileSize,
}: {
  readonly body: Extract<Body, { kind: "box" }>;
  readonly onBody: OnBody;
  readonly tileSize: number;
}) {
  return (
    <div className="two settings">
      {(["Left", "Top", "Width", "Height"] as const).map((label, i) => (
        <NumberField
          key={label}
          label={label}
          unit="px"
          range={boxRange(body.box, i, tileSize)}
          value={body.box[i]!}
          step={1}
          onValue={(value, stroke) =>
            onBody(
              { ...body, box: body.box.map((v, j) => (i === j ? value : v)) as unknown as typeof body.box },
              stroke ?? undefined,
            )
          }
          onStrokeEnd={session.project.endStroke}
        />
      ))}
    </div>
  );
}

function ProbeFields({
  body,
  onBody,
  tileSize,
}: {
  readonly body: Extract<Body, { kind: "probes" }>;
  readonly onBody: OnBody;
  readonly tileSize: number;
}) {
  const [min, max] = bodyReach(tileSize);
  const range = { min, max, whole: true };
  const set = (index: number, axis: 0 | 1, value: number, stroke: string | null): boolean =>
    onBody(
      {
        ...body,
        points: body.points.map((point, i) =>
          i !== index ? point : axis === 0 ? ([value, point[1]] as const) : ([point[0], value] as const),
        ),
      },
      stroke ?? undefined,
    );
  return (
    <ol className="probes">
      {body.points.map(([x, y], i) => (
        <Probe key={i} i={i} range={range} x={x} set={set} y={y} body={body} onBody={onBody} />
      ))}
      {body.points.length < LIMITS.probes[1] && (
        <li>
          <button
            type="button"
            className="btn btn-plain"
            onClick={() =>
              onBody({ ...body, points: [...body.points, [Math.floor(tileSize / 2), Math.floor(tileSize / 2)]] })
            }
          >
            <Icon name="plus" /> probe
          </button>
        </li>
      )}
    </ol>
  );
}

/** One probe: its place and the button that takes it away. */
function Probe({
  i,
  range,
  x,
  set,
  y,
  body,
  onBody,
}: {
  readonly i: number;
  readonly range: { min: number; max: number; whole: boolean };
  readonly x: number;
  readonly set: (index: number, axis: 0 | 1, value: number, stroke: string | null) => boolean;
  readonly y: number;
  readonly body: { readonly kind: "probes"; readonly points: readonly Pair[]; readonly flush: "free" | "blocks" };
  readonly onBody: OnBody;
}) {
  return (
    <li>
      <NumberField
        label={`${i + 1} x`}
        range={range}
        value={x}
        step={1}
        onValue={(value, stroke) => set(i, 0, value, stroke)}
        onStrokeEnd={session.project.endStroke}
      />
      <NumberField
        label="y"
        range={range}
        value={y}
        step={1}
        onValue={(value, stroke) => set(i, 1, value, stroke)}
        onStrokeEnd={session.project.endStroke}
      />
      <BareButton
        icon="close"
        name={`Delete probe ${i + 1}`}
        disabled={body.points.length === 1}
        onClick={() => onBody({ ...body, points: body.points.filter((_, j) => j !== i) })}
      />
    </li>
  );
}

/** The four corners of a box as probes: its last px, since a probe on its right or lower edge would lie beyond it. */
function probesOf({ box: [left, top, width, height] }: Extract<Body, { kind: "box" }>): Body {
  const [right, bottom] = [left + width - 1, top + height - 1];
  return {
    kind: "probes",
    points: [
      [left, top],
      [right, top],
      [left, bottom],
      [right, bottom],
    ],
    flush: "free",
  };
}

function boxOf({ points }: Extract<Body, { kind: "probes" }>, tileSize: number): Body {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  if (points.length === 1) return { kind: "box", box: [0, 0, tileSize, tileSize], flush: "free" };
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return { kind: "box", box: [left, top, Math.max(...xs) - left + 1, Math.max(...ys) - top + 1], flush: "free" };
}

/** What the body's edges do. */
function FlushHint({ value }: { readonly value: string }) {
  return (
    <>
      <strong>Flush</strong>
      <p>{settingSays(FLUSH)}</p>
      <ShownMoving path={FLUSH} value={value} />
      <dl>
        {["free", "blocks"].map((each) => (
          <div key={each} className={each === value ? "chosen" : ""}>
            <dt className="mono">{each}</dt>
            <dd>{valueSays(FLUSH, each)}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}
