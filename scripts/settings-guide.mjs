// `npm run settings-guide`: writes docs/settings.md from the table of the core. A test says when it is due.
import { writeFileSync } from "node:fs";
import path from "node:path";
import { format } from "oxfmt";
import { tsImport } from "tsx/esm/api";
import { ROOT } from "./setup/run.mjs";

const { SETTINGS } = await tsImport("../core/src/world/settings.ts", import.meta.url);
const { FLUSH, rangeSays, settingSays, valueSays } = await tsImport(
  "../core/src/world/setting-says.ts",
  import.meta.url,
);

const NAMES = new Map([
  ["input", "Input"],
  ["walker", "Walker"],
  ["hop", "Hop"],
  ["glide", "Glide"],
  ["roam", "Roam"],
  ["drift", "Drift"],
  ["facing", "Facing"],
  ["pose", "Pose"],
]);

const lines = [
  "# Settings of a rule set",
  "",
  "What each setting does, as the Bench says it on hover and focus. Ranges are those of a world of 16 px a cell.",
];
let group = "";
for (const setting of SETTINGS) {
  const [own] = setting.path.split(".");
  if (own !== group) lines.push("", `## ${NAMES.get(own)}`, "");
  // It stands with the walker's body and not in the table.
  if (own !== group && own === "walker") {
    lines.push(`- **Flush**, \`${FLUSH}\`: ${settingSays(FLUSH)}`);
    for (const value of ["free", "blocks"]) lines.push(`  - \`${value}\`: ${valueSays(FLUSH, value)}`);
  }
  group = own;
  const range = rangeSays(setting, 16);
  lines.push(
    `- **${setting.label}**, \`${setting.path}\`${range === null ? "" : `, ${range}`}: ${settingSays(setting.path)}`,
  );
  if (setting.kind !== "choice") continue;
  for (const value of setting.choices) {
    const says = valueSays(setting.path, value);
    if (says !== null) lines.push(`  - \`${value}\`: ${says}`);
  }
}
const file = path.join(ROOT, "docs", "settings.md");
writeFileSync(file, (await format(file, `${lines.join("\n")}\n`)).code);
