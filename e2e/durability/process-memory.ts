import { readFileSync } from "node:fs";

/** Memory of a process in MiB: what it has now, and the most that it ever had. */
export function processMemory(pid: number): { readonly now: number; readonly peak: number } {
  const status = readFileSync(`/proc/${pid}/status`, "utf8");
  const kib = (name: string): number => Number(new RegExp(`^${name}:\\s+(\\d+) kB$`, "m").exec(status)![1]);
  return { now: kib("VmRSS") / 1024, peak: kib("VmHWM") / 1024 };
}
