// What the tests show in short, for long: `npm run durability`, or with names of parts behind it. Figures as JSON lines.
import { Browser } from "../browser.ts";
import { Started } from "../started.ts";
import { damagedFiles } from "./damaged-files.ts";
import { killRounds } from "./kill-rounds.ts";
import { manyClients } from "./many-clients.ts";
import { twoTabs } from "./two-tabs.ts";

const say = (what: string, figures: object): void =>
  void process.stdout.write(`${JSON.stringify({ what, ...figures })}\n`);

/** Whether what came of a part is as it must be. */
type Part = (started: Started, browser: () => Promise<Browser>) => Promise<boolean>;

const PARTS: ReadonlyMap<string, Part> = new Map<string, Part>([
  [
    "kills",
    async (started) => {
      const rounds = await killRounds(started, { batches: 1000, kills: 1000 }, 1);
      say("server killed at random moments while saving", rounds);
      return rounds.faults.length === 0;
    },
  ],
  [
    "tabs",
    async (started, browser) => {
      const tabs = await twoTabs(started, await browser(), 60, 1);
      say("two tabs editing without a database", tabs);
      return tabs.lost === 0 && tabs.equal;
    },
  ],
  [
    "clients",
    async (started) => {
      const clients = await manyClients(started, 50, 600);
      say("50 clients at the same time", {
        ...clients,
        memoryRatio: Number((clients.memoryEnd / clients.memoryEarly).toFixed(2)),
      });
      return clients.errors.length === 0 && clients.lost === 0 && clients.memoryEnd <= 1.2 * clients.memoryEarly;
    },
  ],
  [
    "damaged",
    async (started, browser) => {
      const files = await damagedFiles(started, await browser(), 10_000, 600, 1);
      say("damaged files through API and page", files);
      return files.faults.length === 0 && files.slowestMs < 2000 && files.peakMiB < 512;
    },
  ],
]);

const wanted = process.argv.slice(2);
for (const [name, part] of PARTS) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  // Each on an application of its own: figures of memory are of this part alone.
  const started = await Started.start();
  let opened: Browser | null = null;
  try {
    const held = await part(started, async () => (opened ??= await Browser.open()));
    if (!held) process.exitCode = 1;
  } finally {
    await (opened as Browser | null)?.close();
    await started.stop();
  }
}
