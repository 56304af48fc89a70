import type { Overlay, Tool } from "./bench-store.ts";
import { simulationClient } from "../project/project.ts";
import { benchStore } from "./bench-store.ts";
/** Where the body does not fit in the shown room, if that is shown at all. */
export async function lookForClearance(): Promise<void> {
  const { room, overlays } = benchStore.getState();
  const client = simulationClient();
  if (!overlays.clearance || client === null || room === "") return;
  const cells = await client.clearance(room);
  if (benchStore.getState().room === room) benchStore.setState({ clearance: cells instanceof Uint8Array ? { room, cells } : null });
}

/** Chooses a tool; leaving Walk is `endWalk`'s. */
export function chooseTool(tool: Tool): void {
  benchStore.setState({ tool });
}

export function toggleOverlay(overlay: Overlay): void {
  benchStore.setState((state) => ({ overlays: { ...state.overlays, [overlay]: !state.overlays[overlay] } }));
  if (overlay === "clearance") void lookForClearance();
}

/** Shows a room. */
export function chooseRoom(room: string): void {
  benchStore.setState({ room, selection: null, drag: null, clearance: null });
  void lookForClearance();
}

export function pointAt(pointer: { x: number; y: number } | null): void {
  benchStore.setState({ pointer });
}
