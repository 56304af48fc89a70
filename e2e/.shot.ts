import { Browser } from "/work/main/e2e/browser.ts";
const [,, url, file, ...js] = process.argv;
const b = await Browser.open();
try {
  await b.driver.get(url!);
  await b.driver.sleep(1200);
  for (const j of js) { const r = await b.driver.executeScript(j); if (r) console.log(r); await b.driver.sleep(500); }
  await b.picture(file!);
  const logs = await b.driver.manage().logs().get("browser"); for (const l of logs) console.log(l.level.name, l.message);
} finally { await b.close(); }
