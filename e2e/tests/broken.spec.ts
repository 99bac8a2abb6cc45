import { mkdtemp, rm } from "node:fs/promises";
import { join } from "node:path";
import { test as bare } from "@playwright/test";
import { App, expect, ROOM, test } from "../app.ts";

test("an address at which there is nothing says so", async ({ page, app }) => {
  const answer = await page.goto(`${app.url}/nothing/here`);
  expect(answer?.status()).toBe(404);
  await expect(page.getByRole("heading", { name: "There is nothing here" })).toBeVisible();
  await page.getByRole("link", { name: "To the shoots" }).click();
  await expect(page.getByRole("heading", { name: "Shoots" })).toBeVisible();
});

test("what Measure does not know opens Measure", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/nothing`);
  await expect(page.getByRole("heading", { name: "Measure" })).toBeVisible();
  await expect(page).toHaveURL(/\/measure$/);
});

// The page of a fault has faults, so that the guard of the other tests would fail here.
const broken = bare.extend<{ app: App }>({
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads what is asked for off the pattern
  app: async ({}, use) => {
    const folder = await mkdtemp(join(ROOM, "pinhole e2e "));
    const app = new App(folder, ["--demo"]);
    await app.start();
    await use(app);
    await app.stop();
    await rm(folder, { recursive: true });
  },
});

broken(
  "a part that is gone after an upgrade is fetched by one reload, else the way on is shown",
  async ({ browser, app }) => {
    const context = await browser.newContext({ serviceWorkers: "block" });
    const page = await context.newPage();
    let asked = 0;
    await page.route(/assets\/KitPlace.*\.js/, (route) => {
      asked++;
      return asked === 1 ? route.abort() : route.continue();
    });
    let opened = 0;
    page.on("load", () => opened++);
    // From the start: places are fetched in a quiet moment, too.
    await page.route(/assets\/CardPlace.*\.js|assets\/CardStart.*\.js/, (route) => route.abort());
    await page.goto(`${app.url}/shoot`);
    await page.getByRole("link", { name: "Kit" }).click();
    await expect(page.getByRole("heading", { name: "Kit", exact: true })).toBeVisible();
    // It may be asked for in a quiet moment as well, before and after.
    expect(asked).toBeGreaterThan(1);
    expect(opened).toBeLessThanOrEqual(2);

    await page.getByRole("link", { name: "Field card", exact: true }).click();
    await expect(page.getByRole("heading", { name: "This place broke" })).toBeVisible();
    await page.getByRole("link", { name: "Shoots", exact: true }).click();
    await expect(page.getByRole("heading", { name: "Shoots" })).toBeVisible();
    await context.close();
  },
);
