import { memo } from "react";
import { session } from "../page-session.ts";
import type { Rules, SettingValue } from "@keen-pebble/core/world";
import { rangeSays, settingByPath, settingRange, settingSays, settingValue, valueSays } from "@keen-pebble/core/world";
import { NumberField } from "../look/number-field.tsx";
import { SelectField } from "../look/select-field.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { useProject, useTried } from "../use-session.ts";
import { Hinted } from "./hinted.tsx";
import { ShownMoving } from "./shown-moving.tsx";

interface Props {
  readonly rules: Rules;
  /** A path of the settings table, such as `glide.speed`. */
  readonly path: string;
  readonly warn?: boolean;
}

/** A setting of a rule set as a field, with the values tried in this visit; changing it re-runs the log. */
export const SettingField = memo(function SettingField(props: Props) {
  return (
    <Hinted path={props.path} says={<Hint {...props} />}>
      <Field {...props} />
      <TriedValues rules={props.rules} path={props.path} />
    </Hinted>
  );
});

/** What a setting does, what it may be, and what its values do. */
function Hint({ rules, path }: Props) {
  const tileSize = useProject((state) => state.project?.world.tileSize ?? 16);
  const setting = settingByPath(path)!;
  const value = settingValue(rules, path);
  const range = rangeSays(setting, tileSize);
  const choices = setting.kind === "choice" ? setting.choices : [];
  return (
    <>
      <strong>{setting.label}</strong>
      <p>{settingSays(path)}</p>
      <ShownMoving path={path} value={value} />
      {range !== null && <p className="quiet">{range}</p>}
      {choices.some((choice) => valueSays(path, choice) !== null) && (
        <dl>
          {choices.map((choice) => (
            <div key={choice} className={choice === value ? "chosen" : ""}>
              <dt className="mono">{choice}</dt>
              <dd>{valueSays(path, choice)}</dd>
            </div>
          ))}
        </dl>
      )}
    </>
  );
}

function Field({ rules, path, warn }: Props) {
  const tileSize = useProject((state) => state.project?.world.tileSize ?? 16);
  const setting = settingByPath(path)!;
  const value = settingValue(rules, path);
  const change = (after: SettingValue, stroke: string | null = null): boolean =>
    session.ruleSets.changeSetting(rules.id, path, value, after, stroke);
  switch (setting.kind) {
    case "switch":
      return <ToggleField label={setting.label} value={value as boolean} onValue={(after) => change(after)} />;
    case "choice": {
      const numbers = typeof setting.choices[0] === "number";
      return (
        <SelectField
          label={setting.label}
          value={String(value)}
          choices={setting.choices.map(String)}
          onValue={(after) => change(numbers ? Number(after) : after)}
        />
      );
    }
    case "px":
    case "whole": {
      const unit = setting.kind === "px" ? "px" : setting.unit;
      return (
        <NumberField
          label={setting.label}
          range={settingRange(setting, tileSize)}
          unit={unit === "frames" ? "fr" : unit}
          value={value as number}
          step={setting.kind === "px" && (value as number) < 1 ? 0.125 : 1}
          warn={warn ?? false}
          onValue={change}
          onStrokeEnd={session.project.endStroke}
        />
      );
    }
  }
}

/** What was tried here in this visit and what the checks said; one click goes back to a value. */
function TriedValues({ rules, path }: Pick<Props, "rules" | "path">) {
  const tried = useTried(rules.id, path);
  if (tried === undefined || tried.length < 2) return null;
  const present = settingValue(rules, path);
  return (
    <div className="tried" role="group" aria-label={`${settingByPath(path)!.label}: tried in this visit`}>
      {tried.map(({ value, failing, checks, holdsNow }) => {
        const shown = typeof value === "boolean" ? (value ? "on" : "off") : String(value);
        const said = !holdsNow
          ? "tried before something else was changed"
          : checks === 0
            ? "no checks"
            : failing === 0
              ? `all ${checks} checks hold`
              : `${failing} of ${checks} checks fail`;
        return (
          <button
            key={shown}
            type="button"
            className={!holdsNow ? "" : failing > 0 ? "fails" : "holds"}
            aria-pressed={value === present}
            title={`${shown}: ${said}`}
            onClick={() => session.ruleSets.changeSetting(rules.id, path, present, value, null)}
          >
            {shown}
          </button>
        );
      })}
    </div>
  );
}
