// What is written for other programs, and needs a package that the page does not load.
export type { ReportedLog } from "./formats/junit.ts";
export { junitXml } from "./formats/junit.ts";
