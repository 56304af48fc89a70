import { commandLine } from "./command-line.ts";
import { guardStandardOutput } from "./standard-output.ts";

guardStandardOutput();
process.exitCode = await commandLine(process.argv.slice(2));
