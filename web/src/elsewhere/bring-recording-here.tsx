import { Suspense, lazy } from "react";
import { useStore } from "zustand";
import { session } from "../page-session.ts";

const BringRecording = lazy(() => import("./bring-recording.tsx"));

/** The dialog that brings a recording of a game in, loaded when it is first asked for. */
export function BringRecordingHere() {
  const open = useStore(session.recordings.store, (state) => state.open);
  return (
    open !== null && (
      <Suspense fallback={null}>
        <BringRecording open={open} />
      </Suspense>
    )
  );
}
