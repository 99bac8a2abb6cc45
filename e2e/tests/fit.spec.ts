import { expect, on, openShot, test, visit } from "../app.ts";

test("what was tried, and what never was, is in the offer of a shot", async ({ page, app }) => {
  await test.step("glass that was never tried is offered with its warning", async () => {
    await openShot(page, app, "Dive down the terraces");
    await expect(on(page).glass).toHaveText("Density 1.5");
    const verdict = page.getByRole("region", { name: "Verdict" });
    await expect(verdict).toContainText("Density 1.5: tight by caliper, not tested");
  });
  await test.step("a trial changes what a shot is offered, and taking it back undoes that", async () => {
    await openShot(page, app, "Crates down the lane");
    await expect(on(page).glass).toHaveText("ND16");
    await page.getByRole("link", { name: "Kit", exact: true }).click();
    await page.getByRole("link", { name: "Fit", exact: true }).click();
    await page.getByRole("button", { name: "ND16 B2 on Crate trailer (action camera), in its frame: tested" }).click();
    const sheet = page.getByRole("dialog");
    await expect(sheet).toContainText("Power off or disarm before mounting");
    await sheet
      .getByRole("group", { name: "Seats straight and all the way" })
      .getByRole("button", { name: "No" })
      .click();
    await sheet.getByLabel("Pull-off, g").fill("-4");
    await sheet.getByRole("button", { name: "Save this test" }).click();
    await expect(sheet.getByText(/a number from 0.1 to 1000000/).first()).toBeVisible();
    await sheet.getByLabel("Pull-off, g").fill("");
    await sheet.getByRole("button", { name: "Save this test" }).click();
    const cell = page.getByRole("button", {
      name: /^ND16 B2 on Crate trailer \(action camera\), in its frame: does not fit/,
    });
    await expect(cell).toBeVisible();

    await openShot(page, app, "Crates down the lane");
    await expect(on(page).glass).not.toHaveText("ND16");
    await expect(
      page.getByRole("group", { name: "Filters to put on" }).getByRole("button", { name: /ND16/ }),
    ).toHaveCount(0);

    await visit(page, app, "/kit/fit");
    await cell.click();
    const trials = sheet.getByRole("button", { name: "Delete" });
    await expect(trials).toHaveCount(2); // what was kept on the device comes first, and lacks the new one
    await trials.first().click();
    await expect(trials).toHaveCount(1);
    await page.keyboard.press("Escape");
    await expect(
      page.getByRole("button", { name: "ND16 B2 on Crate trailer (action camera), in its frame: tested" }),
    ).toBeVisible();
    await openShot(page, app, "Crates down the lane");
    await expect(on(page).glass).toHaveText("ND16");
  });
});
