import type { Rules, Stage } from "@keen-pebble/core/world";
import { SETTINGS, settingApplies } from "@keen-pebble/core/world";
import { SettingField } from "./setting-field.tsx";

interface Props {
  readonly rules: Rules;
  readonly stage: Stage;
  /** Settings that the card shows elsewhere. */
  readonly but?: readonly string[];
}

/** All settings of a stage that a frame under these rules looks at, as fields side by side. */
export function Settings({ rules, stage, but = [] }: Props) {
  const own = SETTINGS.filter(
    (setting) => setting.stage === stage && !but.includes(setting.path) && settingApplies(rules, setting.path),
  );
  if (own.length === 0) return null;
  return (
    <div className="two settings">
      {own.map(({ path }) => (
        <SettingField key={path} rules={rules} path={path} />
      ))}
    </div>
  );
}
