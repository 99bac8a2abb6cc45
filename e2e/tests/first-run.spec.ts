import { drawer, edit, expect, on, test } from "../app.ts";

test.use({ demo: false });

test("from nothing to glass on the lens, and still there tomorrow", async ({ page, app }) => {
  await page.goto(app.url);
  await expect(page.getByRole("heading", { name: "Which filter, in this light?" })).toBeVisible();
  await page.getByRole("link", { name: "add your camera" }).click();

  await page.getByLabel("Name", { exact: true }).fill("My camera");
  await page.getByLabel("Aperture (f-number)", { exact: true }).fill("2,0");
  await page.getByRole("button", { name: /^Not known yet/ }).click();
  await page.getByLabel("Shutter steps its menu offers", { exact: true }).fill("1/50 1/100, 1/8000");
  await page.getByRole("button", { name: "Add camera" }).click();
  await expect(page.getByText("f/2 · ISO 100 to 1600")).toBeVisible();

  for (const label of ["ND8", "ND16", "4.9 stop"]) {
    await page.getByLabel("Label on the ring").fill(label);
    await page.getByRole("button", { name: "Add filter" }).click();
    await expect(
      page.getByRole("region", { name: "Filters" }).getByRole("cell", { name: label, exact: true }),
    ).toBeVisible();
  }
  await page.getByLabel("Label on the ring").fill("ND 2.0");
  await expect(page.getByText("This can be read in two ways. Which is it?")).toBeVisible();
  await page.getByRole("button", { name: "factor 2: 1.0 stops" }).click();
  await page.getByRole("button", { name: "Add filter" }).click();
  await expect(
    page.getByRole("region", { name: "Filters" }).getByRole("cell", { name: "ND 2.0", exact: true }),
  ).toBeVisible();

  await page.getByRole("link", { name: "Shoots", exact: true }).click();
  await page.getByLabel("A new shoot").fill("Saturday");
  await page.getByRole("button", { name: "Add shoot" }).click();
  await page.getByRole("button", { name: "New shot" }).click();

  // EV 12.64; the camera at f/2, 1/50, ISO 100 needs 7.64: 5.0 stops of glass.
  await edit(page, "Light");
  await on(page).meter.fill("f2 1/1600 iso100");
  await edit(page, "Look");
  await page.getByRole("button", { name: "25", exact: true }).click();
  await expect(on(page).glass).toHaveText("4.9 stop");
  await expect(on(page).setting).toHaveText("1/50 · ISO 100 · 180°");
  await drawer(page, "Why");
  await expect(on(page).reasons).toContainText("cuts 4.9 stops (marked), 5.0 needed: 0.1 over");
  await expect(on(page).saved).toHaveText(/^saved \d/);

  await app.stop();
  await app.start();
  await page.goto(`${app.url}/shoot`);
  await page.getByRole("link", { name: /New shot.*4\.9 stop/ }).click();
  await edit(page, "Light");
  await expect(on(page).meter).toHaveValue("f2 1/1600 iso100");
  await expect(on(page).glass).toHaveText("4.9 stop");
});
