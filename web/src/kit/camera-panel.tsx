import { session } from "../page-session.ts";
import type { Camera, World } from "@keen-pebble/core/world";
import { KitField } from "./kit-field.tsx";
import { SelectField } from "../look/select-field.tsx";
import "./fixtures.css";

const MODES: Readonly<Record<string, Camera["mode"]>> = {
  "whole room": "whole",
  "by screen": "screen",
  follow: "follow",
};

/** What the player sees of a room: a view setting that never changes the run. `Q` shows it on the field. */
export function CameraPanel({ world }: { readonly world: World }) {
  const { camera } = world;
  const set = session.worldSettings.setCamera;
  const cells = (
    label: string,
    value: number,
    range: readonly [number, number],
    part: (value: number) => Partial<Camera>,
  ) => <KitField label={label} range={range} value={value} onValue={(next, stroke) => set(part(next), stroke)} />;
  return (
    <section className="kit-part" aria-label="Camera">
      <h3>Camera</h3>
      <div className="fixture-settings">
        <div className="wide">
          <SelectField
            label="Shows"
            value={Object.keys(MODES).find((name) => MODES[name] === camera.mode)!}
            choices={Object.keys(MODES)}
            onValue={(name) => set({ mode: MODES[name]! })}
          />
        </div>
        {camera.mode !== "whole" && (
          <>
            {cells("Across", camera.width, [1, 512], (width) => ({ width }))}
            {cells("Down", camera.height, [1, 512], (height) => ({ height }))}
          </>
        )}
        {camera.mode === "follow" && (
          <>
            {cells("Margin x", camera.margin[0], [0, 512], (x) => ({ margin: [x, camera.margin[1]] }))}
            {cells("Margin y", camera.margin[1], [0, 512], (y) => ({ margin: [camera.margin[0], y] }))}
            {cells("Ease", camera.ease, [0, 240], (ease) => ({ ease }))}
          </>
        )}
      </div>
    </section>
  );
}
