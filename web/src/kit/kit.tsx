import { session } from "../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { tileUses } from "@keen-pebble/core/edit";
import { useMemo, useState } from "react";
import { useBench, useProject } from "../use-session.ts";
import { CameraPanel } from "./camera-panel.tsx";
import { BagPanel } from "./bag-panel.tsx";
import { FeelPanel } from "./feel-panel.tsx";
import { FixturePanel } from "./fixture-panel.tsx";
import { FlagList } from "./flag-list.tsx";
import { LookEditor } from "./look-editor.tsx";
import { RoomPanel } from "./room-panel.tsx";
import { ShapeEditor } from "./shape-editor.tsx";
import { TileFacts } from "./tile-facts.tsx";
import { TileList } from "./tile-list.tsx";
import "./kit.css";

const TABS = ["tiles", "fixtures", "bag", "room", "feel"] as const;
const NAMES = { tiles: "Tiles", fixtures: "Fixtures", bag: "Bag", room: "Room", feel: "Feel" } as const;

/** What a room is made of: the tiles to paint with and what they mean to the walker, the room itself; and how the walker feels. */
export function Kit() {
  const world = useProject((state) => state.project?.world ?? null);
  const walking = useBench((state) => state.walk !== null);
  const [tab, setTab] = useState<(typeof TABS)[number]>("tiles");
  if (world === null) return null;
  return (
    <aside
      className="kit"
      aria-label="Kit"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const [file] = event.dataTransfer.files;
        if (!file || walking) return;
        void (tab === "room" ? session.rooms.readRoomFile(file) : session.sheets.bringInSheet(file));
      }}
    >
      <div className="kit-head" role="tablist" aria-label="Kit">
        {TABS.map((each) => (
          <button
            key={each}
            type="button"
            role="tab"
            aria-selected={tab === each}
            aria-controls="kit-body"
            onClick={() => setTab(each)}
          >
            {NAMES[each]}
          </button>
        ))}
      </div>
      <div className="kit-body" id="kit-body" role="tabpanel" aria-label={NAMES[tab]}>
        <fieldset disabled={walking && tab !== "bag"}>
          {tab === "tiles" && <KitOf world={world} />}
          {tab === "fixtures" && <FixturePanel world={world} />}
          {tab === "bag" && <BagPanel world={world} />}
          {tab === "room" && (
            <>
              <RoomPanel world={world} />
              <CameraPanel world={world} />
            </>
          )}
          {tab === "feel" && <FeelPanel />}
        </fieldset>
      </div>
    </aside>
  );
}

function KitOf({ world }: { readonly world: World }) {
  const chosen = useBench((state) => state.chosenTiles);
  const { rooms, tiles } = world;
  const uses = useMemo(() => tileUses({ rooms, tiles } as World), [rooms, tiles]);
  const selected = tiles.filter((tile) => chosen.includes(tile.id));
  const first = selected[0];
  return (
    <>
      <TileList world={world} uses={uses} />
      {first && (
        <>
          <TileFacts key={first.id} world={world} tiles={selected} uses={uses} />
          <FlagList world={world} tiles={selected} uses={uses} />
          <ShapeEditor tileSize={world.tileSize} tiles={selected} />
          <LookEditor world={world} tiles={selected} />
        </>
      )}
    </>
  );
}
