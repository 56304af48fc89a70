import { useEffect } from "react";
import { RouterProvider, createBrowserRouter } from "react-router";
import { addressWriter } from "./areas/world/address-writer.ts";
import { AREAS, loadAreas } from "./areas/areas.ts";
import { NotLoaded } from "./areas/not-loaded.tsx";
import { shelfParts } from "./page-shelf.ts";
import { NoSuchPage, ShelfPage } from "./areas/shelf/shelf-page.tsx";

const router = createBrowserRouter([
  {
    errorElement: <NotLoaded />,
    hydrateFallbackElement: <div className="page" />,
    children: [
      { path: "/", element: <ShelfPage /> },
      {
        path: "/w/:world",
        lazy: async () => {
          const { WorldLayout } = await AREAS.world();
          loadAreas();
          return { Component: WorldLayout };
        },
        children: [
          { path: "bench", lazy: async () => ({ Component: (await AREAS.bench()).BenchPage }) },
          { path: "floorplan", lazy: async () => ({ Component: (await AREAS.floorplan()).FloorplanPage }) },
          { path: "reach", lazy: async () => ({ Component: (await AREAS.reach()).ReachPage }) },
          { path: "proofs", lazy: async () => ({ Component: (await AREAS.proofs()).ProofsPage }) },
          { path: "journal", lazy: async () => ({ Component: (await AREAS.journal()).JournalPage }) },
          { path: "*", element: <NoSuchPage /> },
        ],
      },
      { path: "*", element: <NoSuchPage /> },
    ],
  },
]);

/** The page: an area for each address. */
export function App() {
  useEffect(() => shelfParts.asked.writeAddress.answer(addressWriter(router)), []);
  return <RouterProvider router={router} />;
}
