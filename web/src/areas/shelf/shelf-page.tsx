import type { WorldEntry } from "@keen-pebble/server/api";
import { useCallback, useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import { Link } from "react-router";
import { plural } from "../../look/plural.ts";
import { TopBar } from "../../look/top-bar.tsx";
import { listWorlds } from "../../session/api-client.ts";
import { WorldCard } from "./world-card.tsx";
import "./shelf.css";

/** The Shelf: which worlds are there, and what state each is in. */
export function ShelfPage() {
  const [worlds, setWorlds] = useState<readonly WorldEntry[] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const load = useCallback(() => {
    setFault(null);
    listWorlds().then(
      (list) => setWorlds(list.worlds),
      (error: unknown) => setFault(error instanceof Error ? error.message : String(error)),
    );
  }, []);
  useEffect(load, [load]);
  return (
    <div className="page">
      <TopBar area="shelf" />
      <main className="area shelf">
        <div className="shelf-head">
          <h1>Draw rooms, walk them, keep the walks.</h1>
          <p className="quiet">Every change runs all of them again.</p>
        </div>
        {fault !== null && (
          <div className="empty">
            <h2>The shelf cannot be shown: {fault}.</h2>
            <p className="quiet">Nothing is lost.</p>
            <Button variant="main" onClick={load}>
              Try again
            </Button>
          </div>
        )}
        {fault === null && worlds?.length === 0 && (
          <div className="empty">
            <h2>The shelf is empty.</h2>
            <p className="quiet">Worlds stand here once they are brought in.</p>
          </div>
        )}
        {fault === null && worlds?.map((world) => <WorldCard key={world.id} world={world} />)}
      </main>
      <footer className="status">
        {worlds && (
          <span>
            {plural(worlds.length, "world")}, {plural(worlds.reduce((n, w) => n + w.rooms, 0), "room")}, {plural(worlds.reduce((n, w) => n + w.logs, 0), "log")}
          </span>
        )}
        <span className="grow" />
        <span>Enter opens a world</span>
      </footer>
    </div>
  );
}

/** Shown for an address that names no area. */
export function NoSuchPage() {
  return (
    <div className="page">
      <TopBar area="shelf" />
      <main className="area empty">
        <h1>There is no such page.</h1>
        <Link className="btn btn-main" to="/">
          To the Shelf
        </Link>
      </main>
    </div>
  );
}
