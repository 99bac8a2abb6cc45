import { expect, openShot, test } from "../app.ts";

test("a gap is read off the coverage, and closing it closes it", async ({ page, app }) => {
  await page.goto(`${app.url}/kit/coverage`);
  const coverage = page.getByRole("region", { name: "Coverage" });
  await coverage.getByLabel("On the camera").selectOption({ label: "Terrace quad (air unit)" });
  const advice = coverage.getByTestId("coverage-advice");
  // The forecast of the dive is EV 15.4 at 60 fps: 6.4 stops, and density 1.5 is 4.98.
  await expect(advice).toContainText("For your shots: the kit serves 0 of 1.");
  await expect(advice).toContainText("Buy first: ND128. It serves one shot that nothing does now.");
  await expect(advice).toContainText("No glass of yours serves “Dive down the terraces”.");

  await expect(coverage.getByRole("region", { name: "Gaps" })).toContainText(
    "60 fps, 180° (1/120): EV 9.5 to 11.0 (ND2 for most of it)",
  );
  await page.getByRole("link", { name: "Gear" }).click();
  const form = page.getByRole("region", { name: "Glass" });
  await form.getByLabel("Label on the ring").fill("ND128");
  await form.getByRole("group", { name: "Goes on" }).getByText("Terrace quad (air unit)").click();
  await form.getByRole("button", { name: "Add filter" }).click();
  await page.getByRole("link", { name: "Coverage" }).click();
  await coverage.getByLabel("On the camera").selectOption({ label: "Terrace quad (air unit)" });
  await expect(advice).toContainText("For your shots: the kit serves 1 of 1.");
  await expect(advice).toContainText("Enough to carry for them: ND128.");
  await expect(advice).not.toContainText("Buy first");
  await openShot(page, app, "Dive down the terraces");
  await expect(page.getByTestId("in-the-plan")).toContainText("ND128");
});

test("the coverage is walked by arrow keys", async ({ page, app }) => {
  await page.goto(`${app.url}/kit/coverage`);
  const grid = page.getByRole("grid", { name: "Coverage" });
  await grid.focus();
  const cell = page.getByTestId("coverage-cell");
  await expect(cell).toHaveText("25 fps, 180° (1/50): EV 2.0, No glass, −5.6 stops, breaks");
  for (let i = 0; i < 17; i++) await page.keyboard.press("ArrowRight");
  await expect(cell).toHaveText("25 fps, 180° (1/50): EV 10.5, ND8, −0.2 stops, holds");
  await page.keyboard.press("ArrowDown");
  await expect(cell).toHaveText(/^24 fps/);
  await grid.getByRole("gridcell").nth(3).click();
  await expect(cell).toContainText("EV 3.5");
});
