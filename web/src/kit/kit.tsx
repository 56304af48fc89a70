import { session } from "../page-session.ts";
import type { World } from "@keen-pebble/core/world";
import { tileUses } from "@keen-pebble/core/edit";
import { useMemo } from "react";
import { useBench, useProject } from "../use-session.ts";
import { droppedFiles } from "../session/elsewhere/taken-file.ts";
import type { KitTab } from "../session/bench/bench-store.ts";
import { KIT_TABS } from "../session/bench/bench-store.ts";
import { StartFinding } from "./start-finding.tsx";
import { WorldPanel } from "./world-panel.tsx";
import { ActorPanel } from "./actor-panel.tsx";
import { BagPanel } from "./bag-panel.tsx";
import { FeelPanel } from "./feel-panel.tsx";
import { FixturePanel } from "./fixture-panel.tsx";
import { GamePanel } from "./game-panel.tsx";
import { FlagList } from "./flag-list.tsx";
import { LookEditor } from "./look-editor.tsx";
import { RoomPanel } from "./room-panel.tsx";
import { ShapeEditor } from "./shape-editor.tsx";
import { TileFacts } from "./tile-facts.tsx";
import { TileList } from "./tile-list.tsx";
import { WallPanel } from "./wall-panel.tsx";
import "./kit.css";
import Nav from "react-bootstrap/Nav";
import Tab from "react-bootstrap/Tab";

const NAMES: Readonly<Record<KitTab, string>> = {
  tiles: "Tiles",
  fixtures: "Fixtures",
  actors: "Actors",
  bag: "Bag",
  room: "Room",
  world: "World",
  feel: "Feel",
  game: "Game",
};

/** What a room is made of: the tiles to paint with and what they mean to the walker, the room itself; and how the walker feels. */
export function Kit() {
  const world = useProject((state) => state.project?.world ?? null);
  const walking = useBench((state) => state.walk !== null);
  const tab = useBench((state) => state.kit);
  if (world === null) return null;
  return (
    <Tab.Container id="kit" unmountOnExit activeKey={tab} onSelect={(key) => session.actors.openKit(key as KitTab)}>
      <aside
        className="kit"
        aria-label="Kit"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          // What is dropped on the Bench beside it is a log or a trace.
          event.stopPropagation();
          const files = droppedFiles(event.dataTransfer);
          const [file] = files;
          if (!file || walking) return;
          if (tab === "game") {
            void session.board.takeLogsIn(files);
            return;
          }
          void (tab === "room" ? session.rooms.readRoomFile(file) : session.sheets.bringInSheet(file));
        }}
      >
        <Nav className="kit-head" aria-label="Kit">
          {KIT_TABS.map((each) => (
            <Nav.Link key={each} as="button" type="button" eventKey={each}>
              {NAMES[each]}
            </Nav.Link>
          ))}
        </Nav>
        <Tab.Pane className="kit-body" eventKey={tab} transition={false} tabIndex={0}>
          <StartFinding />
          <fieldset disabled={walking && tab !== "bag"}>
            {tab === "tiles" && <KitOf world={world} />}
            {tab === "fixtures" && <FixturePanel world={world} />}
            {tab === "actors" && <ActorPanel world={world} />}
            {tab === "bag" && <BagPanel world={world} />}
            {tab === "room" && <RoomPanel world={world} />}
            {tab === "world" && <WorldPanel world={world} />}
            {tab === "feel" && <FeelPanel />}
            {tab === "game" && <GamePanel world={world} />}
          </fieldset>
        </Tab.Pane>
      </aside>
    </Tab.Container>
  );
}

function KitOf({ world }: { readonly world: World }) {
  const chosen = useBench((state) => state.chosenTiles);
  const { rooms, tiles } = world;
  const uses = useMemo(() => tileUses({ rooms, tiles } as World), [rooms, tiles]);
  const selected = tiles.filter((tile) => chosen.includes(tile.id));
  const first = selected[0];
  const walling = useBench((state) => state.tool === "wall");
  return (
    <>
      {walling && <WallPanel world={world} uses={uses} />}
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
