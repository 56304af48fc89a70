import { useStore } from "zustand";
import type { BenchState } from "./bench-store.ts";
import { benchStore } from "./bench-store.ts";
import type { ProjectState } from "./project-store.ts";
import { projectStore } from "./project-store.ts";
import type { SaveState } from "./saving.ts";
import { saveStore } from "./saving.ts";

/** A part of what the Bench shows; the component draws again when it changes. */
export const useBench = <T>(select: (state: BenchState) => T): T => useStore(benchStore, select);

/** A part of the open project's state. */
export const useProject = <T>(select: (state: ProjectState) => T): T => useStore(projectStore, select);

/** How saving stands. */
export const useSaving = (): SaveState => useStore(saveStore);
