// `npm run world-schema`: writes docs/world.schema.json from the tables of the core. A test says when it is due.
import { writeFileSync } from "node:fs";
import path from "node:path";
import { format } from "oxfmt";
import { tsImport } from "tsx/esm/api";
import { ROOT } from "./setup/run.mjs";

const { worldJsonSchema } = await tsImport("../core/src/formats/world-json-schema.ts", import.meta.url);
const file = path.join(ROOT, "docs", "world.schema.json");
writeFileSync(file, (await format(file, JSON.stringify(worldJsonSchema()), { printWidth: 120 })).code);
