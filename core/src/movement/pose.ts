import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";

/**
 * Sets `moving` and the image number of the walking animation (semantics.md section 5).
 * @param fromX position in units before step 2 of this frame; `fromY` likewise
 */
export function updatePose(c: Compiled, s: SimState, fromX: number, fromY: number): void {
  const { pose } = c.rules;
  s.moving = s.x !== fromX || s.y !== fromY;
  if (s.moving) {
    s.stillFrames = 0;
    // Only its place in one round of images counts; kept within one it stays a small number.
    const counter = s.poseCounter + (pose.advance === "distance" ? Math.abs(s.x - fromX) + Math.abs(s.y - fromY) : 1);
    s.poseCounter = counter < c.poseRound ? counter : counter % c.poseRound;
    s.pose = pose.advance === "off" ? pose.idleImage : Math.floor(s.poseCounter / c.poseEvery);
    return;
  }
  s.stillFrames++;
  if (s.stillFrames >= pose.idleAfter) {
    s.pose = pose.idleImage;
    s.poseCounter = 0;
  }
}
