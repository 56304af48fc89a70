import { compareTraces } from "../../analysis/compare-traces.ts";
import { checkFault, completeCheck } from "../../checks/check-words.ts";
import { junitXml } from "../../formats/junit.ts";
import { readTrace } from "../../formats/read-trace.ts";
import { asFrames, cutLog, keyRuns } from "../../logs/change-lines.ts";
import { flatLog } from "../../logs/flat-log.ts";
import { writeLog } from "../../logs/write-log.ts";
import { pathDifference } from "../../replay/path-difference.ts";
import { explainFrame, run, stateAt } from "../../replay/run.ts";
import { checksOfWalk, checksTrueAt } from "../../replay/true-at.ts";
import { untilChoices } from "../../replay/until-choices.ts";
import { compile } from "../../simulation/compile.ts";
import { traceText } from "../../simulation/trace.ts";
import { rememberedIn } from "../../simulation/explain.ts";
import { withLinesOf } from "../../simulation/with-lines.ts";
import type { Questions } from "./given.ts";
import { answered, eachLog, someFrames } from "./given.ts";

/** Of runs. */
export const RUNS: Questions = {
  traces: (given) => eachLog(given, (log, c) => [...traceText(c, run(c, log, { rows: true }).rows!)].join("")),
  verdicts: (given) => eachLog(given, (log, c) => run(c, log, { checks: true }).verdicts),
  explanations: (given) =>
    eachLog(given, (log, c) => someFrames(run(c, log).frames).map((frame) => explainFrame(c, log, frame))),
  "checks that are offered": (given) =>
    eachLog(given, (log, c) => [
      checksOfWalk(c, log),
      ...someFrames(run(c, log).frames).map((frame) => checksTrueAt(c, log, stateAt(c, log, frame))),
    ]),
  "until choices": (given) =>
    eachLog(given, (log, c) => log.lines.slice(0, 6).map((_, at) => untilChoices(c, log, at))),
  "what a log sets up": (given) =>
    eachLog(given, (log, c) => withLinesOf(c.world, rememberedIn(c, stateAt(c, log, Infinity)))),
  "logs cut, flat and in runs": (given) =>
    eachLog(given, (log, c) => {
      const { lineEnds, frames } = run(c, log);
      return [
        flatLog(log, lineEnds),
        keyRuns(log, lineEnds),
        keyRuns(log, lineEnds).map(asFrames),
        [0, 1, Math.floor(frames / 2), frames].map((frame) => cutLog(log, lineEnds, frame)),
      ];
    }),
  "paths that part": (given) =>
    eachLog(given, (log, c) =>
      pathDifference(
        c,
        log,
        compile({
          ...c.world,
          rules: c.world.rules.map((rules) => ({ ...rules, glide: { ...rules.glide, speed: rules.glide.speed / 2 } })),
        }),
        log,
      ),
    ),
  "traces compared": (given) => {
    const texts = given.logs.map(
      (log) =>
        answered(() => {
          const c = compile(given.world, log.rules ?? undefined);
          return [...traceText(c, run(c, log, { rows: true }).rows!)].join("");
        }) as string,
    );
    return texts.map((text) => answered(() => compareTraces(readTrace(text), readTrace(texts[0]!))));
  },
  reports: (given) =>
    eachLog(given, (log, c) => {
      const { verdicts, frames } = run(c, log, { checks: true });
      return junitXml(
        [
          { log: "one", frames, checks: verdicts },
          { log: "two", error: "is no log" },
        ],
        c.world.frameRate,
      );
    }),
  "words of checks": ({ world, logs }) =>
    logs
      .flatMap(({ checks }) => checks)
      .slice(0, 8)
      .flatMap((check) => {
        const text = writeLog({ ...logs[0]!, checks: [check] })
          .split("\n")
          .find((line) => line.startsWith("check "))!
          .slice(6);
        return [text, text.slice(0, -2), `${text} x`, text.replace(/\d/, "q")].map((typed) => [
          completeCheck(world, typed),
          checkFault(world, typed),
        ]);
      }),
};
