import { Suspense, lazy } from "react";
import { useStore } from "zustand";
import type { MapImport } from "../session/elsewhere/map-import.ts";

const BringMap = lazy(() => import("./bring-map.tsx"));

/** The dialog that brings a map in, loaded when it is first asked for. */
export function BringMapHere({
  mapImport,
  makes,
  tileSize,
}: {
  readonly mapImport: MapImport;
  readonly makes: "world" | "room";
  readonly tileSize: number | null;
}) {
  const isOpen = useStore(mapImport.store, (state) => state.isOpen);
  return (
    isOpen && (
      <Suspense fallback={null}>
        <BringMap mapImport={mapImport} makes={makes} tileSize={tileSize} />
      </Suspense>
    )
  );
}
