import { useStore } from "zustand";
import { shelfParts } from "./page-shelf.ts";
import type { ShelfState } from "./session/shelf/shelf.ts";

/** A part of what the Shelf shows. */
export const useShelf = <T>(select: (state: ShelfState) => T): T => useStore(shelfParts.shelf.store, select);
