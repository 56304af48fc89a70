import { Started } from "./started.ts";
import { Browser } from "./browser.ts";
import { writeFileSync } from "node:fs";
const s = await Started.start();
const b = await Browser.open();
try {
  await b.driver.get(s.address);
  await b.find(".worlds");
  await b.press("button", "Bring in a map from your game");
  const area = await b.find("[aria-label='Map as text']");
  const rows = Array.from(
    { length: 14 },
    (_, y) =>
      "  {" +
      Array.from({ length: 22 }, (_, x) =>
        y === 0 || y === 13 || x === 0 || x === 21 ? 1 : (x * 7 + y * 3) % 11 === 0 ? 3 : (x + y) % 9 === 0 ? 4 : 2,
      ).join(", ") +
      "},",
  ).join("\n");
  await b.driver.executeScript(
    "const a=arguments[0]; const set=Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype,'value').set; set.call(a, arguments[1]); a.dispatchEvent(new Event('input',{bubbles:true}));",
    area,
    "const uint8_t HALL[14][22] = {\n" + rows + "\n};",
  );
  await b.find(".map-preview canvas");
  await new Promise((r) => setTimeout(r, 500));
  await b.picture("/tmp/w/bring.png");
} finally {
  await b.close?.();
  await s.stop?.();
}
process.exit(0);
