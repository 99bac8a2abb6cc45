import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import { expect, on, openShot, test } from "../app.ts";

const PHONE = { width: 390, height: 844 };
const picture = (name: string) => `../docs/screenshots/${name}.png`;

/** Waits until the previews, which come after the verdict, are drawn. */
async function drawn(page: Page): Promise<void> {
  await expect(page.locator("[data-testid^=loop-] canvas")).toHaveCount(2);
  await expect(page.locator("[data-testid^=loop-] .chakra-skeleton")).toHaveCount(0);
  await page.waitForTimeout(300);
}

// The pictures the README shows, from the demo data.
test.describe("pictures", () => {
  test("shoot", async ({ page, app }) => {
    await page.goto(`${app.url}/shoot`);
    await expect(page.getByRole("link", { name: /Pond/ })).toContainText("forecast");
    await page.screenshot({ path: picture("shoot") });
  });

  test("shot", async ({ page, app }) => {
    await openShot(page, app, "Pond from above");
    await expect(on(page).glass).toHaveText("ND32/PL");
    await drawn(page);
    await page.screenshot({ path: picture("shot") });
  });

  test("shot with a conflict", async ({ page, app }) => {
    await openShot(page, app, "Crates down the lane");
    await expect(on(page).state).toContainText("stabiliser limit breaks");
    await page.mouse.move(0, 0);
    await drawn(page);
    await page.screenshot({ path: picture("shot-conflict") });
  });

  test("a clip beside its shot", async ({ page, app }) => {
    await page.goto(`${app.url}/measure/take`);
    await page.getByLabel("A take of").selectOption({ label: "Dawn walk between the rows" });
    await page.getByLabel("A clip", { exact: true }).setInputFiles("../core/take/testdata/hand-crisp.mp4");
    await expect(page.getByTestId("take-says")).toBeVisible({ timeout: 45_000 });
    await page.screenshot({ path: picture("measure-take") });
  });

  test("practice", async ({ page, app }) => {
    await page.goto(`${app.url}/practice`);
    await expect(page.getByTestId("eye")).toBeVisible();
    await page.screenshot({ path: picture("practice") });
  });

  test("what the log taught", async ({ page, app }) => {
    await page.goto(`${app.url}/log`);
    await expect(page.getByTestId("belief").first()).toBeVisible();
    await page.screenshot({ path: picture("log") });
  });

  test("a shutter test on a phone", async ({ page, app }) => {
    await page.setViewportSize(PHONE);
    await page.goto(`${app.url}/measure/steps`);
    await page.getByLabel("With the camera, light and movement of").selectOption({ label: "Crates down the lane" });
    for (const grade of ["Good", "Good", "Usable"])
      await page.getByTestId("steps").getByRole("button", { name: grade, exact: true }).click();
    await expect(page.getByTestId("limit")).toContainText("takes");
    await page.getByTestId("steps").scrollIntoViewIfNeeded();
    await page.screenshot({ path: picture("measure-steps") });
  });

  test("a case compared", async ({ page, app }) => {
    await page.goto(`${app.url}/measure/case`);
    await page.getByRole("button", { name: "Start" }).click();
    for (let frame = 1; frame <= 19; frame++) {
      await expect(page.getByText(`frame ${frame} of 19`)).toBeVisible();
      await page.getByRole("button", { name: "Simulated camera" }).click();
    }
    await page.getByLabel("Name of their set").fill("Case A");
    await page.getByRole("button", { name: "Save with the filters" }).click();
    await expect(page.getByRole("region", { name: "Sets side by side" })).toBeVisible();
    await page.getByText("Saved with 5 filters").waitFor({ state: "hidden" });
    await page.screenshot({ path: picture("measure-case") });
  });

  test("shot on a phone", async ({ page, app }) => {
    await page.setViewportSize(PHONE);
    await openShot(page, app, "Crates down the lane");
    await page.waitForTimeout(300);
    await page.screenshot({ path: picture("shot-phone") });
  });

  test("a walk's shake", async ({ page, app }) => {
    await page.goto(`${app.url}/measure/gyro`);
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("link", { name: "Download a simulated walk" }).click(),
    ]);
    const buffer = await readFile(await download.path());
    const name = download.suggestedFilename();
    await page.getByLabel("A gyro log").setInputFiles({ name, mimeType: "text/csv", buffer });
    await page
      .getByLabel("The camera, as it was held")
      .selectOption({ label: "Crate trailer (action camera), in its frame" });
    await expect(page.getByTestId("gyro-limit")).toBeVisible();
    await expect(page.getByTestId("gyro-says")).toContainText("Hz");
    await page.screenshot({ path: picture("measure-shake") });
  });

  test.describe("from nothing", () => {
    test.use({ demo: false });

    test("first answer", async ({ page, app }) => {
      await page.goto(app.url);
      await page
        .getByLabel(/^The shot in one line/)
        .fill("drone · clouds with gaps, sun behind me > 25 fps · 8 16 32 64");
      await expect(page.getByTestId("line-pocket")).toBeVisible();
      await page.screenshot({ path: picture("first-answer") });
    });
  });

  test("kit", async ({ page, app }) => {
    await page.goto(`${app.url}/kit`);
    await page.getByLabel("Label on the ring").fill("ND 2.0");
    await expect(page.getByText("This can be read in two ways")).toBeVisible();
    await page
      .getByRole("region", { name: "Filters", exact: true })
      .evaluate((node) => node.scrollIntoView({ block: "start" }));
    await page.screenshot({ path: picture("kit") });
  });

  test("fit table", async ({ page, app }) => {
    await page.goto(`${app.url}/kit/fit`);
    await expect(page.getByRole("region", { name: "Fit table" })).toBeVisible();
    await expect(page.getByRole("button", { name: /^VND 2-5 stop D5 on Pond drone.*may come off$/ })).toBeVisible();
    await page.screenshot({ path: picture("kit-fit") });
  });

  test("coverage", async ({ page, app }) => {
    await page.goto(`${app.url}/kit/coverage`);
    const coverage = page.getByRole("region", { name: "Coverage" });
    await coverage.getByLabel("On the camera").selectOption({ label: "Terrace quad (air unit)" });
    await expect(coverage).toContainText("Buy first: ND128");
    await page.waitForTimeout(300);
    await page.screenshot({ path: picture("kit-coverage") });
  });

  test("the day", async ({ page, app }) => {
    await page.goto(`${app.url}/shoot`);
    await page.getByRole("link", { name: "Plan the day" }).click();
    await expect(page.getByTestId("plan")).toContainText("Noon walk");
    await page.getByRole("slider", { name: "Noon walk on the terrace" }).focus();
    await expect(page.getByTestId("polariser")).toBeVisible();
    await page.evaluate(() => window.scrollTo(0, 0));
    await page.waitForTimeout(300);
    await page.screenshot({ path: picture("day") });
    await page.setViewportSize(PHONE);
    await page.waitForTimeout(500);
    await page.screenshot({ path: picture("day-phone") });
  });

  test.describe("in the field", () => {
    test.use({ viewport: PHONE, isMobile: true, hasTouch: true });

    test("card", async ({ page, app }) => {
      await page.goto(`${app.url}/card`);
      await page.getByRole("button", { name: "The take after" }).tap();
      await expect(page.getByTestId("turn")).toContainText("Noon walk");
      await page.waitForTimeout(300);
      await page.screenshot({ path: picture("card") });
    });

    test("re-metering on the card", async ({ page, app }) => {
      await page.goto(`${app.url}/card`);
      await expect(page.getByTestId("turn")).toBeVisible();
      await page.goto(`${page.url()}?at=2031-09-20T12:45:00-01:00`);
      await page.getByRole("button", { name: "Row walker" }).tap();
      await page.getByRole("button", { name: "Re-meter" }).tap();
      await page.getByRole("button", { name: "−2", exact: true }).tap();
      await expect(page.getByTestId("remetered")).toContainText("Change to");
      await page.waitForTimeout(500);
      await page.screenshot({ path: picture("card-remeter") });
    });

    test("a drill on the card, dark", async ({ page, app }) => {
      await page.emulateMedia({ colorScheme: "dark" });
      await page.goto(`${app.url}/card`);
      await page.getByRole("button", { name: "Terrace quad" }).tap();
      await page.getByRole("button", { name: "Goes wrong" }).tap();
      await page.waitForTimeout(500);
      await page.screenshot({ path: picture("card-drill-dark") });
    });
  });
});
