import type { Rules, SettingValue } from "@keen-pebble/core";
import { settingByPath, settingValue } from "@keen-pebble/core";
import { NumberField } from "../look/number-field.tsx";
import { SelectField } from "../look/select-field.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { changeSetting } from "../session/bench.ts";
import { endStroke } from "../session/project-store.ts";

interface Props {
  readonly rules: Rules;
  /** A path of the settings table, such as `glide.speed`. */
  readonly path: string;
  readonly warn?: boolean;
}

/** A setting of a rule set as a field; changing it re-runs the log. */
export function SettingField({ rules, path, warn }: Props) {
  const setting = settingByPath(path)!;
  const value = settingValue(rules, path);
  const change = (after: SettingValue, stroke: string | null = null): boolean => changeSetting(rules.id, path, value, after, stroke);
  switch (setting.kind) {
    case "switch":
      return <ToggleField label={setting.label} value={value as boolean} onValue={(after) => change(after)} />;
    case "choice": {
      const numbers = typeof setting.choices[0] === "number";
      return <SelectField label={setting.label} value={String(value)} choices={setting.choices.map(String)} onValue={(after) => change(numbers ? Number(after) : after)} />;
    }
    case "px":
    case "whole": {
      const unit = setting.kind === "px" ? "px" : setting.unit;
      return <NumberField label={setting.label} unit={unit === "frames" ? "fr" : unit} value={value as number} step={1} warn={warn ?? false} onValue={change} onStrokeEnd={endStroke} />;
    }
  }
}
