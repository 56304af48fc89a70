import type { Rules, Stage } from "@keen-pebble/core";
import { SETTINGS } from "@keen-pebble/core";
import { SettingField } from "./setting-field.tsx";

/** All settings of the gait in use that belong to a stage, as fields side by side. */
export function Settings({ rules, stage }: { readonly rules: Rules; readonly stage: Stage }) {
  const own = SETTINGS.filter((setting) => setting.stage === stage && setting.path.startsWith(`${rules.gait}.`));
  if (own.length === 0) return null;
  return (
    <div className="two settings">
      {own.map(({ path }) => (
        <SettingField key={path} rules={rules} path={path} />
      ))}
    </div>
  );
}
