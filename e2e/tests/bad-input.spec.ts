import { edit, expect, on, openShot, test } from "../app.ts";

test("each field says what it allows, and the last good answer stands back", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  const look = page.getByRole("region", { name: "Look", exact: true });
  const light = page.getByRole("region", { name: "Light", exact: true });
  const expectFault = async (text: RegExp) => {
    await expect(page.getByRole("main").getByText(text).first()).toBeVisible();
    await expect(page.getByText("Cannot be answered as it stands.")).toBeVisible();
    await expect(on(page).saved).toHaveText("not saved until it can be answered");
  };
  const expectMended = async () => {
    await expect(page.getByText("Cannot be answered as it stands.")).toHaveCount(0);
    await expect(on(page).saved).toHaveText(/^saved \d/);
  };
  const fields = [
    {
      form: "Look",
      field: look.getByLabel("or another"),
      bad: "fast",
      good: "50",
      says: /^write frames per second above 0/,
    },
    { form: "Look", field: look.getByLabel("or your own"), bad: "half", good: "180°", says: /^write 1\/60, 60, 0\.5s/ },
    { form: "Look", field: look.getByLabel("or your own"), bad: "400°", good: "180°", says: /^at most 360°/ },
    {
      form: "Light",
      field: light.getByLabel("shutter it chose"),
      bad: "1/",
      good: "1/2000",
      says: /^write 1\/60, 60, 0\.5s/,
    },
    { form: "Light", field: light.getByLabel("ISO"), bad: "lots", good: "100", says: /^write an ISO from 1/ },
  ] as const;
  for (const { form, field, bad, good, says } of fields) {
    await edit(page, form);
    await field.fill(bad);
    await expectFault(says);
    await expect(field).toHaveAttribute("aria-invalid", "true");
    await field.fill(good);
    await expectMended();
  }
  await edit(page, "Light");
  await page.getByRole("button", { name: "Light meter", exact: true }).click();
  await on(page).meter.fill("f2");
  await expectFault(/^a shutter time too, as in f2 1\/1250 iso50/);
  await on(page).meter.fill("EV 99");
  await expectFault(/^light lies between EV -20 and 40/);
  await on(page).meter.fill("EV 13");
  await page.getByText("The light changes during the shot").click();
  await page.getByLabel("Darkest: what the meter says").fill("EV 15");
  await expectFault(/^no more light than the highest reading/);
  await page.getByLabel("Darkest: what the meter says").fill("EV 12");
  await expectMended();
  await page.getByRole("button", { name: "Lux", exact: true }).click();
  await page.getByLabel("lux at the subject").fill("f2 1/50");
  await expectFault(/^incident light in lux/);
  await page.getByRole("button", { name: "Exposure bias" }).click();
  await page.getByLabel("bias shown").fill("some");
  await expectFault(/^write a plain number/);
});

test("two polarisers at once are refused by name", async ({ page, app }) => {
  await openShot(page, app, "Pond from above");
  await page.keyboard.press("6"); // beside glass with a polariser in it the variable filter is two more
  await expect(page.getByText(/one polariser at most/).first()).toBeVisible();
  await page.getByRole("button", { name: "0 · back to the best" }).click();
  await expect(page.getByText(/one polariser at most/)).toHaveCount(0);
});

test("a camera and a filter of faults are refused where they are typed", async ({ page, app }) => {
  await page.goto(`${app.url}/kit`);
  await page.getByRole("button", { name: "Add a camera" }).click();
  const form = page.getByRole("form", { name: "Add a camera" });
  await form.getByLabel("Name", { exact: true }).fill("x");
  await form.getByLabel("Aperture (f-number)", { exact: true }).fill("bright");
  await form.getByRole("button", { name: "Add camera" }).click();
  await expect(form.getByText("a number", { exact: true })).toBeVisible();
  await form.getByLabel("Aperture (f-number)", { exact: true }).fill("0.1");
  await form.getByRole("button", { name: "Add camera" }).click();
  await expect(form.getByText("0.1: a number from 0.5 to 64 (f-number)", { exact: true })).toBeVisible();
  await form.getByLabel("Aperture (f-number)", { exact: true }).fill("2");
  await form.getByRole("button", { name: /^Not known yet/ }).click();
  await form.getByLabel("Shutter steps its menu offers", { exact: true }).fill("1/50, soon");
  await form.getByRole("button", { name: "Add camera" }).click();
  await expect(form.getByText(/^soon: write 1\/60/)).toBeVisible();
  await form.getByLabel("Shutter steps its menu offers", { exact: true }).fill("1/50");
  await form.getByLabel("Highest usable ISO", { exact: true }).fill("50");
  await form.getByRole("button", { name: "Add camera" }).click();
  await expect(form.getByText(/at least the base ISO, 100/).first()).toBeVisible();
  const filter = page.getByRole("form", { name: "Add a filter" });
  await filter.getByLabel("Label on the ring").fill("dark glass");
  await expect(filter.getByText(/^write it as on the ring/)).toBeVisible();
  await expect(filter.getByRole("button", { name: "Add filter" })).toBeDisabled();
});
