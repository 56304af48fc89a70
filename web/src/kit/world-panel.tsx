import type { Facing, World } from "@keen-pebble/core/world";
import { FACINGS, LIMITS, allFixtures } from "@keen-pebble/core/world";
import { SelectField } from "../look/select-field.tsx";
import { ToggleField } from "../look/toggle-field.tsx";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";
import { session } from "../page-session.ts";
import { CameraPanel } from "./camera-panel.tsx";
import { FigurePanel } from "./figure-panel.tsx";
import { KitField } from "./kit-field.tsx";
import { Laws } from "./laws.tsx";

/** What the world has besides rooms, tiles and rules. */
export function WorldPanel({ world }: { readonly world: World }) {
  return (
    <>
      <section className="kit-part first" aria-label="World">
        <TextField
          label="Name"
          aria-label="World name"
          key={world.name}
          defaultValue={world.name}
          maxLength={LIMITS.nameLength}
          onBlur={(event) => session.worldSettings.setName(event.target.value)}
          onKeyDown={leaveOnEnter}
        />
        <div className="pair">
          <CellSize tileSize={world.tileSize} />
          <KitField
            label="Frame rate"
            range={LIMITS.frameRate}
            unit="Hz"
            value={world.frameRate}
            onValue={session.worldSettings.setFrameRate}
          />
        </div>
      </section>
      <Start world={world} />
      <Ends world={world} />
      <Laws world={world} />
      <FigurePanel world={world} />
      <CameraPanel world={world} />
    </>
  );
}

/** Px of a cell; what is in px is scaled with it. */
function CellSize({ tileSize }: { readonly tileSize: number }) {
  return (
    <TextField
      label="Cell"
      aria-label="Cell size in px"
      title="Shapes, bodies and px in checks are scaled with it; refused where one does not come out whole"
      key={tileSize}
      inputMode="numeric"
      defaultValue={tileSize}
      onBlur={(event) => {
        if (!session.worldSettings.setTileSize(Number(event.target.value))) event.target.value = String(tileSize);
      }}
      onKeyDown={leaveOnEnter}
    >
      <span className="unit">px</span>
    </TextField>
  );
}

/** Where one starts. */
function Start({ world: { start, rooms } }: { readonly world: World }) {
  const room = rooms.find(({ id }) => id === start.room);
  return (
    <section className="kit-part" aria-label="Start">
      <h3>Start</h3>
      <div className="fixture-settings">
        <div className="wide">
          <SelectField
            label="Room"
            value={start.room}
            choices={rooms.map(({ id, name }) => [id, name])}
            onValue={(id) => {
              const to = rooms.find((each) => each.id === id)!;
              session.worldSettings.putStart(id, [to.width >> 1, to.height >> 1]);
            }}
          />
        </div>
        <KitField
          label="Column"
          range={[0, (room?.width ?? 1) - 1]}
          value={start.cell[0]}
          onValue={(x, stroke) => session.worldSettings.putStart(start.room, [x, start.cell[1]], stroke)}
        />
        <KitField
          label="Row"
          range={[0, (room?.height ?? 1) - 1]}
          value={start.cell[1]}
          onValue={(y, stroke) => session.worldSettings.putStart(start.room, [start.cell[0], y], stroke)}
        />
        <div className="wide">
          <SelectField
            label="Faces"
            value={start.facing}
            choices={FACINGS.map((facing) => [facing, facing.replace("-", " ")])}
            onValue={(facing) => session.worldSettings.faceStart(facing as Facing)}
          />
        </div>
      </div>
      <p className="quiet small">On the field: drag it to another cell, click it to turn it.</p>
    </section>
  );
}

/** What a respawn gives back, in words. */
const RESTORES = [
  ["keeps", "what keeps life"],
  ["checkpoint", "the checkpoint"],
  ["start", "the start"],
] as const;

/** What ends a run: lives and the goal. */
function Ends({ world }: { readonly world: World }) {
  const { goal, lives } = world;
  const markers = allFixtures(world).filter(({ kind }) => kind === "marker");
  return (
    <section className="kit-part" aria-label="Goal and lives">
      <h3>Goal and lives</h3>
      <div className="fixture-settings">
        <div className="wide">
          <SelectField
            label="Goal"
            value={goal === null ? "" : goal.kind === "marker" ? `marker ${goal.fixture}` : `collect ${goal.item}`}
            choices={[
              ["", "none"],
              ...markers.map(({ id }) => [`marker ${id}`, `reach ${id}`] as const),
              ...world.items.map(({ id }) => [`collect ${id}`, `take every ${id}`] as const),
            ]}
            onValue={(chosen) => {
              const [kind, name = ""] = chosen.split(" ");
              session.worldSettings.setGoal(
                kind === "" ? null : kind === "marker" ? { kind, fixture: name } : { kind: "collect", item: name },
              );
            }}
          />
        </div>
        <ToggleField
          label="Count lives"
          value={lives !== null}
          onValue={(counted) => session.worldSettings.setLives(counted ? 3 : null)}
        />
        <div className="wide">
          <SelectField
            label="A death gives back"
            value={world.respawnRestores}
            choices={RESTORES}
            onValue={(restores) => session.worldSettings.setRespawnRestores(restores as World["respawnRestores"])}
          />
        </div>
        {lives !== null && (
          <KitField label="Lives" range={LIMITS.lives} value={lives} onValue={session.worldSettings.setLives} />
        )}
      </div>
    </section>
  );
}
