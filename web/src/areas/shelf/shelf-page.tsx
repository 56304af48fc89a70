import type { ShownWorld } from "../../session/shelf/shelf.ts";
import { shelfParts } from "../../page-shelf.ts";
import { useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import { Link, useNavigate } from "react-router";
import { BringMapHere } from "../../elsewhere/bring-map-here.tsx";
import { takeFiles } from "../../page-shelf.ts";
import { Icon } from "../../look/icon.tsx";
import { ActFinder } from "../../look/act-finder.tsx";
import { Notice } from "../../look/notice.tsx";
import { plural } from "../../look/plural.ts";
import { useFileDrop } from "../../look/use-file-drop.ts";
import { ShelfBar } from "./shelf-bar.tsx";
import { useShelf } from "../../use-shelf.ts";
import { useCommandKeys } from "../../look/use-commands.ts";
import { ShelfPictures } from "../../session/shelf/shelf-pictures.ts";
import { BringIn } from "./bring-in.tsx";
import { DeletedStrip } from "./deleted-strip.tsx";
import { WorldCard } from "./world-card.tsx";
import "./shelf.css";
import Form from "react-bootstrap/Form";

/** The Shelf: which worlds are there, what state each is in, and how files come in. */
export function ShelfPage() {
  const worlds = useShelf((state) => state.worlds);
  const fault = useShelf((state) => state.fault);
  const told = useShelf((state) => state.told);
  const [pictures] = useState(() => new ShelfPictures());
  const [sought, setSought] = useState("");
  useEffect(() => {
    document.title = "Shelf - Keen Pebble";
  }, []);
  useEffect(() => {
    void shelfParts.shelf.loadShelf();
    const stop = shelfParts.shelf.followShelf();
    return () => {
      stop();
      pictures.close();
    };
  }, [pictures]);
  useCommandKeys(shelfParts.shelfCommands);
  useShelfKeys();
  // On a card, loose logs go to its world.
  const { over, handlers } = useFileDrop(
    (files, target) => void takeFiles(files, target?.closest<HTMLElement>("[data-world]")?.dataset["world"] ?? null),
  );
  const navigate = useNavigate();
  useEffect(() => shelfParts.asked.openWorld.answer((world) => void navigate(`/w/${world}/bench`)), [navigate]);
  const words = sought.trim().toLowerCase();
  const found = worlds?.filter(
    (world) => words === "" || `${world.name} ${world.id} ${world.names}`.toLowerCase().includes(words),
  );
  return (
    <div className={`page${over ? " dropping" : ""}`} {...handlers}>
      <ShelfBar />
      <div className="notices">
        <Notice told={told} onDismiss={() => shelfParts.shelf.tellOnShelf(null)} />
      </div>
      <div className="area shelf">
        <main className="worlds">
          <ShelfHead sought={sought} setSought={setSought} />
          {fault !== null && <ShelfFault fault={fault} />}
          {fault === null && worlds?.length === 0 && <EmptyShelf />}
          {fault === null && found?.length === 0 && worlds?.length !== 0 && (
            <p className="quiet">No world, room or log is called that.</p>
          )}
          {fault === null && found?.map((world) => <WorldCard key={world.id} world={world} pictures={pictures} />)}
          <DeletedStrip />
        </main>
        <BringIn />
      </div>
      <ShelfStatus worlds={worlds} />
      <BringMapHere mapImport={shelfParts.mapImport} makes="world" tileSize={null} />
      <ActFinder area="Shelf" commands={shelfParts.shelfCommands} />
    </div>
  );
}

/** Why nothing can be shown. */
function ShelfFault({ fault }: { readonly fault: string }) {
  return (
    <div className="empty">
      <h2>The shelf cannot be shown: {fault}.</h2>
      <p className="quiet">Nothing is lost.</p>
      <Button variant="main" onClick={() => void shelfParts.shelf.loadShelf()}>
        Try again
      </Button>
    </div>
  );
}

/** What to do where there is no world yet. */
function EmptyShelf() {
  return (
    <div className="empty">
      <h2>The shelf is empty.</h2>
      <p className="quiet">
        Have a map already? Drop the source file that holds it, the sheet of its tiles, or a picture of it. Or type a
        room on the right.
      </p>
      <Button variant="main" onClick={shelfParts.mapImport.open}>
        Bring in a map from your game
      </Button>
    </div>
  );
}

/** How much there is. */
function ShelfStatus({ worlds }: { readonly worlds: readonly ShownWorld[] | null }) {
  return (
    <footer className="status">
      {worlds && (
        <span>
          {plural(worlds.length, "world")},{" "}
          {plural(
            worlds.reduce((n, w) => n + w.rooms, 0),
            "room",
          )}
          ,{" "}
          {plural(
            worlds.reduce((n, w) => n + w.logs, 0),
            "log",
          )}
        </span>
      )}
      <span className="grow" />
      <span>Enter opens a world, Delete takes it off the shelf</span>
    </footer>
  );
}

/** What this is, and the field to search in. */
function ShelfHead({
  sought,
  setSought,
}: {
  readonly sought: string;
  readonly setSought: React.Dispatch<React.SetStateAction<string>>;
}) {
  return (
    <div className="shelf-head">
      <h1>Draw rooms, walk them, keep the walks.</h1>
      <p className="quiet">Every change runs all of them again.</p>
      <span className="grow" />
      <label className="search">
        <Icon name="search" />
        <Form.Control
          type="search"
          aria-label="Search"
          placeholder="World, room or log"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
      </label>
    </div>
  );
}

/** What the keys do with the cards: the chosen world is the one whose card has the keyboard. */
function useShelfKeys(): void {
  useEffect(() => {
    const names = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>(".world-card .world-name")];
    const chosen = (): number =>
      names().findIndex((name) => name.closest(".world-card")!.contains(document.activeElement));
    const choose = (by: number): void => {
      const all = names();
      const at = chosen();
      all[at < 0 ? (by > 0 ? 0 : all.length - 1) : Math.min(Math.max(at + by, 0), all.length - 1)]?.focus();
    };
    const takeOff = (): void => {
      const id = names()[chosen()]?.closest<HTMLElement>("[data-world]")?.dataset["world"];
      const world = shelfParts.shelf.store.getState().worlds?.find((each) => each.id === id);
      if (world) shelfParts.shelf.takeOffShelf(world);
    };
    const search = (): void => document.querySelector<HTMLElement>(".search input")?.focus();
    const stops = [
      shelfParts.asked.chooseWorld.answer(choose),
      shelfParts.asked.takeOffWorld.answer(takeOff),
      shelfParts.asked.searchWorlds.answer(search),
    ];
    return () => stops.forEach((stop) => stop());
  }, []);
}

/** Shown for an address that names no area. */
export function NoSuchPage() {
  return (
    <div className="page">
      <ShelfBar />
      <main className="area empty">
        <h1>There is no such page.</h1>
        <Link className="btn btn-main" to="/">
          To the Shelf
        </Link>
      </main>
    </div>
  );
}
