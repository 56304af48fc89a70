// A world made ready and run: compile, step, explain, trace.
export type { ExplainedActor } from "./actors/explain-actors.ts";
export type { AxisMove, Nudge } from "./compiled/account.ts";
export type { Compiled } from "./compiled/compiled.ts";
export { SimState } from "./compiled/state.ts";
export type { Gaps } from "./movement/gaps.ts";
export type { KeyFrame } from "./replay/key-frames.ts";
export { KeyFrames } from "./replay/key-frames.ts";
export type { RunOptions, RunResult } from "./replay/run.ts";
export { explainFrame, run, runWithKeyFrames, stateAt } from "./replay/run.ts";
export { carriedState } from "./simulation/carry-state.ts";
export { compile } from "./simulation/compile.ts";
export type {
  BodySide,
  ExplainedAxis,
  ExplainedPlace,
  Explanation,
  Piece,
  Remembered,
  TestedCell,
} from "./simulation/explain.ts";
export { explain, explainStart, rememberedIn } from "./simulation/explain.ts";
export type { WithLine } from "./simulation/run-start.ts";
export { startState } from "./simulation/start-state.ts";
export { step } from "./simulation/step.ts";
export type { ActorRows } from "./simulation/actor-rows.ts";
export { actorTraceText } from "./simulation/actor-rows.ts";
export type { TextHash, TraceRows } from "./simulation/trace.ts";
export { ROW_BUMPING, ROW_MOVING, ROW_ON_LEG, TraceRecorder, fingerprint, traceText } from "./simulation/trace.ts";
export type { RunStart } from "./simulation/run-start.ts";
export { withLinesOf } from "./simulation/with-lines.ts";
export { sameSituation, situationHash } from "./compiled/situation.ts";
