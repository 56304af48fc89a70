import type { BenchStore, Overlay, Tool } from "./bench-store.ts";
import type { ProjectSession } from "../project/project.ts";

/** The room that the Bench shows, and what is drawn over it. */
export class ShownRoom {
  constructor(
    private readonly benchStore: BenchStore,
    private readonly project: ProjectSession,
  ) {}

  /** Where the body does not fit in the shown room, if that is shown at all. */
  readonly lookForClearance = async (): Promise<void> => {
    const { room, overlays } = this.benchStore.getState();
    const client = this.project.simulationClient();
    if (!overlays.clearance || client === null || room === "") return;
    const cells = await client.clearance(room);
    if (this.benchStore.getState().room === room)
      this.benchStore.setState({ clearance: cells instanceof Uint8Array ? { room, cells } : null });
  };

  /** Chooses a tool; leaving Walk is `endWalk`'s. */
  readonly chooseTool = (tool: Tool): void => {
    this.benchStore.setState({ tool });
  };

  readonly toggleOverlay = (overlay: Overlay): void => {
    this.benchStore.setState((state) => ({ overlays: { ...state.overlays, [overlay]: !state.overlays[overlay] } }));
    if (overlay === "clearance") void this.lookForClearance();
  };

  /** Shows a room. */
  readonly chooseRoom = (room: string): void => {
    this.benchStore.setState(({ wall }) => ({
      room,
      selection: null,
      drag: null,
      clearance: null,
      wall: { ...wall, corners: [] },
    }));
    void this.lookForClearance();
  };

  readonly pointAt = (pointer: { x: number; y: number } | null): void => {
    this.benchStore.setState({ pointer, cursor: "none" });
  };
}
