import { RouterProvider, createBrowserRouter } from "react-router";
import { BenchPage } from "./areas/bench/bench-page.tsx";
import { NoSuchPage, ShelfPage } from "./areas/shelf/shelf-page.tsx";

const router = createBrowserRouter([
  { path: "/", element: <ShelfPage /> },
  { path: "/w/:world/bench", element: <BenchPage /> },
  { path: "*", element: <NoSuchPage /> },
]);

/** The page: an area for each address. */
export function App() {
  return <RouterProvider router={router} />;
}
