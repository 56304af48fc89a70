import { RouterProvider, createBrowserRouter } from "react-router";
import { BenchPage } from "./areas/bench/bench-page.tsx";
import { FloorplanPage } from "./areas/floorplan/floorplan-page.tsx";
import { JournalPage } from "./areas/journal/journal-page.tsx";
import { ProofsPage } from "./areas/proofs/proofs-page.tsx";
import { NoSuchPage, ShelfPage } from "./areas/shelf/shelf-page.tsx";
import { WorldLayout } from "./areas/world/world-layout.tsx";

const router = createBrowserRouter([
  { path: "/", element: <ShelfPage /> },
  {
    path: "/w/:world",
    element: <WorldLayout />,
    children: [
      { path: "bench", element: <BenchPage /> },
      { path: "floorplan", element: <FloorplanPage /> },
      { path: "proofs", element: <ProofsPage /> },
      { path: "journal", element: <JournalPage /> },
      { path: "*", element: <NoSuchPage /> },
    ],
  },
  { path: "*", element: <NoSuchPage /> },
]);

/** The page: an area for each address. */
export function App() {
  return <RouterProvider router={router} />;
}
