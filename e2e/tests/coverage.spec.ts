import { drawer, expect, openShot, test } from "../app.ts";

test("a gap is read off the coverage, and closing it closes it", async ({ page, app }) => {
  await page.goto(`${app.url}/kit/coverage`);
  const coverage = page.getByRole("region", { name: "Coverage" });
  await coverage.getByLabel("On the camera").selectOption({ label: "Terrace quad (air unit)" });
  const advice = coverage.getByTestId("coverage-advice");
  // The forecast of the dive is EV 15.4 at 60 fps: 6.4 stops, and density 1.5 is 4.98.
  await expect(advice).toContainText("For your shots: covers 0 of 1.");
  await expect(advice).toContainText("Buy first: ND128. It covers one shot that nothing covers now.");
  await expect(advice).toContainText("No filter of yours covers “Dive down the terraces”.");

  await expect(coverage.getByRole("region", { name: "Gaps" })).toContainText(
    "60 fps, 180° (1/120): EV 9.5 to 11.0 (ND2 for most of it)",
  );
  await page.getByRole("link", { name: "Gear" }).click();
  const form = page.getByRole("region", { name: "Filters", exact: true });
  await form.getByLabel("Label on the ring").fill("ND128");
  await form.getByRole("group", { name: "Goes on" }).getByText("Terrace quad (air unit)").click();
  await form.getByRole("button", { name: "Add filter" }).click();
  await page.getByRole("link", { name: "Coverage" }).click();
  await coverage.getByLabel("On the camera").selectOption({ label: "Terrace quad (air unit)" });
  await expect(advice).toContainText("For your shots: covers 1 of 1.");
  await expect(advice).toContainText("Enough to carry for them: ND128.");
  await expect(advice).not.toContainText("Buy first");
  await openShot(page, app, "Dive down the terraces");
  await drawer(page, "In the plan");
  await expect(page.getByTestId("in-the-plan")).toContainText("ND128");
});

test("the coverage is walked, and a pack considered beside it", async ({ page, app }) => {
  await page.goto(`${app.url}/kit/coverage`);
  await test.step("the coverage is walked by arrow keys", async () => {
    const grid = page.getByRole("grid", { name: "Coverage" });
    await grid.focus();
    const cell = page.getByTestId("coverage-cell");
    await expect(cell).toHaveText("25 fps, 180° (1/50): EV 2.0, No filter, −5.6 stops, breaks");
    for (let i = 0; i < 17; i++) await page.keyboard.press("ArrowRight");
    await expect(cell).toHaveText("25 fps, 180° (1/50): EV 10.5, ND8, −0.2 stops, holds");
    await page.keyboard.press("ArrowDown");
    await expect(cell).toHaveText(/^24 fps/);
    await grid.getByRole("gridcell").nth(3).click();
    await expect(cell).toContainText("EV 3.5");
  });
  await test.step("a pack is considered beside what is owned, and is at hand once it is bought", async () => {
    const coverage = page.getByRole("region", { name: "Coverage" });
    await coverage.getByLabel("On the camera").selectOption({ label: "Row walker (pocket gimbal)" });
    const packs = coverage.getByRole("region", { name: "Considering" });
    await expect(packs.getByRole("row", { name: /Starter pair/ })).toContainText("1 of its 2 does what you own");
    const form = packs.getByRole("form", { name: "Consider a pack" });
    await form.getByLabel("Labels in the pack").fill("2 4/PL 16");
    await form.getByLabel("Its name").fill("Vine three");
    await form.getByLabel("Price of all").fill("12,50");
    await form.getByRole("button", { name: "Compare it" }).click();
    const row = packs.getByRole("row", { name: /Vine three/ });
    await expect(row).toContainText("ND2, ND4/PL, ND16");
    await expect(row).toContainText("12.50");
    await expect(row).toContainText(/closes \d+ of 50 open cells/);
    await expect(row).toContainText("cheapest");

    // It is no glass at hand: neither in the kit nor in what a line is answered with.
    const kit = async () =>
      ((await (await page.request.get(`${app.url}/api/filters`)).json()) as { items: { label: string }[] }).items;
    const before = (await kit()).length;
    await row.getByRole("button", { name: "Delete Vine three" }).click();
    await expect(row).toHaveCount(0);
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(row).toBeVisible();
    expect(await kit()).toHaveLength(before);
    await row.getByRole("button", { name: "Bought" }).click();
    await expect(row).toHaveCount(0);
    await expect.poll(async () => (await kit()).length).toBe(before + 3);
    await page.getByRole("link", { name: "Gear" }).click();
    await expect(page.getByRole("row", { name: /ND4\/PL/ })).toContainText("Vine three");
  });
});
