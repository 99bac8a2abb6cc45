import { chromium } from "@playwright/test";
const [,, spec] = process.argv;
const jobs = JSON.parse(spec);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium-headless-shell", args: ["--no-sandbox","--disable-gpu","--disable-background-networking"] });
for (const j of jobs) {
  const ctx = await browser.newContext({ viewport: j.phone ? {width:390,height:844} : {width:1280,height:800}, locale: j.locale ?? "en-GB", timezoneId: "Etc/GMT+1", colorScheme: j.dark ? "dark":"light", forcedColors: j.forced ? "active":"none", reducedMotion: j.reduced?"reduce":"no-preference", serviceWorkers:"block" });
  const page = await ctx.newPage();
  page.on("pageerror", e => console.log("ERR", e.message));
  if (j.init) await page.addInitScript(j.init);
  await page.goto("http://127.0.0.1:8391" + j.path);
  await page.waitForTimeout(j.wait ?? 2500);
  for (const step of j.steps ?? []) { try { await eval(`(async()=>{${step}})()`); } catch(e) { console.log("STEP", step, e.message.slice(0,300)); } await page.waitForTimeout(700); }
  if (j.print) await page.emulateMedia({media:"print"});
  await page.screenshot({ path: j.out, fullPage: !!j.full });
  if (j.eval) console.log(j.out, await page.evaluate(j.eval));
  await ctx.close();
}
await browser.close();
