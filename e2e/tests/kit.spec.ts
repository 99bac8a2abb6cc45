import type { Page } from "@playwright/test";
import { drawer, edit, expect, on, openShot, test, visit } from "../app.ts";
import { readPdf } from "../pdf.ts";

/** What has the focus, by its label. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const e = document.activeElement as HTMLInputElement | null;
    return e?.labels?.[0]?.textContent || e?.getAttribute("aria-label") || e?.textContent || "";
  });

async function tabTo(page: Page, name: RegExp) {
  for (let i = 0; i < 150; i++) {
    if (name.test(await focused(page))) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab never reaches ${name}`);
}

test.describe("from nothing", () => {
  test.use({ demo: false });

  test("a kit is built by keyboard alone", async ({ page, app }) => {
    await page.goto(`${app.url}/kit`);
    await expect(page.getByRole("button", { name: "FPV air unit" })).toBeVisible();
    await tabTo(page, /^FPV air unit$/);
    await page.keyboard.press("Enter");
    await expect(page.getByLabel("Aperture (f-number)", { exact: true })).toHaveValue("2.1");
    await tabTo(page, /^Name$/);
    await page.keyboard.type("Little quad");
    await tabTo(page, /^Aperture/);
    await page.keyboard.press("ControlOrMeta+a");
    await page.keyboard.type("2,4");
    await tabTo(page, /^Add camera$/);
    await page.keyboard.press("Enter");
    await expect(page.getByText("f/2.4 · ISO 100 to 800")).toBeVisible();
    await expect(page.getByText(/· 12 values assumed$/)).toBeVisible();

    await tabTo(page, /^Rig bare of Little quad$/);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("form", { name: "Edit the rig bare" })).toBeVisible();
    await tabTo(page, /^Not known yet/);
    await page.keyboard.press("Enter");
    await tabTo(page, /^Barrel, mm$/);
    await page.keyboard.type("20.00 to 20.02");
    await tabTo(page, /^Save$/);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("button", { name: "Rig bare of Little quad" })).toBeVisible();

    await tabTo(page, /^Label on the ring$/);
    await page.keyboard.type("ND16");
    await page.keyboard.press("Enter");
    const row = page.getByRole("region", { name: "Filters" }).getByRole("row", { name: /ND16/ });
    await expect(row).toBeVisible();
    await tabTo(page, /^Edit ND16$/);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("form", { name: "Edit ND16" })).toBeVisible();
    await tabTo(page, /^Seat, mm$/);
    await page.keyboard.type("20.03");
    await tabTo(page, /^Save$/);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("form", { name: "Edit ND16" })).toHaveCount(0);

    await tabTo(page, /^Fit$/);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("button", { name: "ND16 on Little quad, bare: should fit" })).toBeVisible();
    await tabTo(page, /^ND16 on Little quad/);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("dialog")).toContainText("snug by caliper, not tested");
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toHaveCount(0);
  });
});

test("sizes that cannot be are refused at their field, and nothing is lost", async ({ page, app }) => {
  await page.goto(`${app.url}/kit`);
  await page.getByRole("button", { name: "Edit ND32" }).nth(1).click();
  const form = page.getByRole("form", { name: "Edit ND32" });
  await form.getByLabel("Clear diameter, mm").fill("50");
  await form.getByLabel("What you call it").fill("the dropped one");
  await form.getByRole("button", { name: "Save" }).click();
  await expect(form.getByText("50: at most the outer diameter, 44 mm", { exact: true })).toBeVisible();
  await form.getByLabel("Clear diameter, mm").fill("wide");
  await form.getByRole("button", { name: "Save" }).click();
  await expect(form.getByText("a number", { exact: true })).toBeVisible();
  await form.getByLabel("Clear diameter, mm").fill("39,5 cm"); // not the unit of the field
  await form.getByRole("button", { name: "Save" }).click();
  await expect(form.getByText("a number", { exact: true })).toBeVisible();
  await form.getByLabel("Clear diameter, mm").fill("39,5 mm");
  await form.getByLabel("Thickness, mm").fill("-1");
  await form.getByRole("button", { name: "Save" }).click();
  await expect(form.getByText(/^-1: a number from 0 to 200/)).toBeVisible();
  await expect(form.getByLabel("What you call it")).toHaveValue("the dropped one");
  await form.getByLabel("Thickness, mm").fill("4 mm");
  await form.getByLabel("Measured stops").fill("4.9 stops");
  await form.getByRole("button", { name: "Save" }).click();
  await expect(
    page.getByRole("region", { name: "Filters" }).getByRole("cell", { name: /^the dropped one/ }),
  ).toBeVisible();
});

test("a filter's fit follows what happened to it, its hold and its rig", async ({ page, app }) => {
  await page.goto(`${app.url}/kit/fit`);
  await test.step("a hold that is too weak grounds a filter, and a stack shows its corners", async () => {
    await page.getByRole("button", { name: /^ND8 C1 on Terrace quad.*: tested$/ }).click();
    const sheet = page.getByRole("dialog");
    await expect(sheet.getByRole("region", { name: "Hold" })).toContainText("Its hold is 3.5 times that");
    await expect(sheet.getByTestId("corners")).toContainText("is clean");
    await sheet.getByLabel("With another filter on it").selectOption({ label: "ND16 C2" });
    await expect(sheet.getByTestId("corners")).toContainText("loses all light");
    await expect(sheet.getByRole("region", { name: "All-up mass" })).toContainText("local rules decide");
    await sheet.getByLabel("Pull-off, g").fill("60");
    await sheet.getByRole("button", { name: "Save this test" }).click();
    await page.getByRole("button", { name: /^ND8 C1 on Terrace quad.*: does not fit$/ }).click();
    await expect(sheet).toContainText("hold too weak: do not fly with it");
    await page.keyboard.press("Escape");
  });
  await test.step("what happened to a filter counts, and a rig of its own has its own fit", async () => {
    const dropped = page.getByRole("button", { name: /^ND32 B3 on Crate trailer.*in its frame: not tested$/ });
    await dropped.click();
    await expect(page.getByRole("dialog")).toContainText("dropped on 2024-05-13, after it was tested");
    await page.keyboard.press("Escape");
    // The rain case takes another mount.
    await expect(
      page.getByRole("button", { name: /^ND16 B2 on Crate trailer.*in the rain case: does not fit$/ }),
    ).toBeVisible();
    await openShot(page, app, "Crates down the lane");
    const verdict = page.getByRole("region", { name: "Verdict" });
    await drawer(page, "Also set");
    await drawer(page, "Also set");
    await expect(verdict.getByRole("region", { name: "Settings recipe" })).toContainText("White balance: 5600 K");
    await edit(page, "Camera");
    await page.getByLabel("Held").selectOption({ label: "in the rain case" });
    await expect(on(page).glass).toHaveText("No filter");
    await page.getByLabel("Held").selectOption({ label: "in its frame" });
    await expect(on(page).glass).toHaveText("ND16");
  });
});

test("sets are weighed, and labels printed", async ({ page, app }) => {
  await test.step("sets are weighed as their owner wishes", async () => {
    await page.goto(`${app.url}/kit/sets`);
    // The first rig that has sets to compare.
    await expect(page.getByLabel("On the rig").locator("option:checked")).toHaveText(
      "Crate trailer (action camera), in its frame",
    );
    const words = page.getByTestId("sets-words");
    await expect(words).toHaveText("No clear winner. For frame set, find out how they fit this rig first.");
    const table = page.getByRole("region", { name: "Sets side by side" });
    await expect(table.getByRole("row", { name: /^Colour shift/ })).toContainText("not known: 1 of 2 not measured");
    for (const name of ["Fit", "Strength error", "Colour shift", "Vignetting", "Flare", "Sharpness loss"]) {
      await page.getByRole("slider", { name: `Weight of: ${name}` }).focus();
      await page.keyboard.press("Home");
    }
    await expect(words).toHaveText("Best in every case: thin set.");
  });
  await test.step("labels are printed at true size", async () => {
    await visit(page, app, "/kit/labels");
    await page.getByLabel("Label width, mm").fill("4");
    await expect(page.getByText("12 to 90 mm")).toBeVisible();
    await expect(page.getByRole("button", { name: "Print labels" })).toBeDisabled();
    await page.getByLabel("Label width, mm").fill("30");
    const address = await page.getByRole("link", { name: "Print labels" }).getAttribute("href");
    const response = await page.request.get(`${app.url}${address}`);
    expect(response.headers()["content-type"]).toBe("application/pdf");
    const printed = await readPdf(await response.body());
    expect(printed.pages).toBe(1);
    expect(printed.widthMm).toBeCloseTo(210, 0);
    expect(printed.heightMm).toBeCloseTo(297, 0);
    expect(printed.text).toContain("this line is 50 mm long. Labels 30 × 14 mm.");
    expect(printed.text).toContain("C3 Density 1.5");
    expect(printed.text.replace(/\s+/g, " ")).toContain("ND32 · measured 4.87 stops");
  });
});

test("old shots can be read when their glass and camera are deleted", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  await expect(on(page).glass).toHaveText("ND16");
  await page.keyboard.press("1");
  await expect(on(page).glass).toHaveText("ND8");
  await expect(on(page).saved).toHaveText(/^saved/);
  await visit(page, app, "/kit");
  await page.getByRole("button", { name: "Delete ND8" }).nth(1).click();
  await expect(page.getByRole("button", { name: "Delete ND8" })).toHaveCount(3);
  await visit(page, app, "/shoot");
  // A planned shot is listed with the glass of the plan, which takes what is there.
  await expect(page.getByRole("link", { name: /^Crates down the lane/ })).toContainText("ND16");
  await page.getByRole("link", { name: /^Crates down the lane/ }).click();
  await expect(page.getByText(/^ND8 cannot be put on this camera now/)).toBeVisible();
  await expect(on(page).glass).toHaveText("ND8");
  await page.getByRole("button", { name: "Go on without it" }).click();
  await expect(on(page).glass).toHaveText("ND16");
  await visit(page, app, "/kit");
  await page.getByRole("button", { name: "Delete Crate trailer (action camera)" }).click();
  await expect(page.getByText("Crate trailer (action camera)", { exact: true })).toHaveCount(0);
  await visit(page, app, "/shoot");
  const row = page.getByRole("link", { name: /^Crates down the lane/ });
  await expect(row).toContainText("Crate trailer (action camera) (deleted)");
  await row.click();
  await expect(on(page).glass).toHaveText("ND16");
});
