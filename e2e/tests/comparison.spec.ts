import { expect, test } from "../app.ts";

// Frames are made and measured one by one, each in its time on a busy machine.
const expectSoon = expect.configure({ timeout: 45_000 });

test("a case of filters is compared, interrupted, gone on with, and fills the table of sets", async ({ page, app }) => {
  test.slow(); // thirteen frames
  await page.goto(`${app.url}/measure/case`);
  await page.getByLabel("On", { exact: true }).selectOption({ label: "Row walker (pocket gimbal), in the hand" });
  await page.getByText("UV", { exact: true }).click(); // left out
  await page.getByText("mist 1/4 · A5").click();
  await expect(page.getByText("13 frames.")).toBeVisible();
  await page.getByRole("button", { name: "Start" }).click();
  const step = page.getByTestId("step");
  const shoot = async (says: string, n: number) => {
    await expectSoon(step).toHaveText(says);
    await expect(page.getByText(`frame ${n} of 13`)).toBeVisible();
    await page.getByRole("button", { name: "Simulated camera" }).click();
  };
  await shoot("No filter", 1);
  await shoot("ND8", 2);
  await expectSoon(page.getByTestId("so-far")).toContainText(/ND8: 3\.0\d ±0\.\d\d stops so far/);
  // A frame that cannot be used is said while the camera still stands there, and taken again.
  await page.getByLabel("Frames of this step and the next").setInputFiles("../core/measure/testdata/black.png");
  await expectSoon(page.getByRole("alert")).toContainText("exposure");
  await page.getByRole("button", { name: "Take the last one again" }).click();
  await expectSoon(step).toHaveText("ND32");
  // Interrupted: what was taken is still there.
  await page.goto(`${app.url}/kit`);
  await page.goto(`${app.url}/measure/case`);
  await shoot("ND32", 3);
  await shoot("ND 2.0", 4);
  await shoot("No filter, once more", 5);
  for (const [i, on] of ["No filter", "ND8", "ND32", "ND 2.0"].entries()) await shoot(on, 6 + i);
  await shoot("No filter", 10);
  await shoot("ND8", 11);
  await expectSoon(step).toHaveText("ND32");
  await page.getByRole("button", { name: "Leave it out" }).click();
  await shoot("ND 2.0", 13);
  const results = page.getByTestId("session-results");
  const row = (name: string) => results.getByRole("row", { name: new RegExp(`^${name}`) });
  await expect(row("ND8")).toContainText(/3\.00\s*3\.0\d ±0\.05 stops/);
  await expect(row("ND32")).toContainText(/5\.00\s*4\.8\d ±0\.05 stops/);
  await expect(row("ND32")).toContainText("not shot"); // its flare
  await page.getByLabel("Name of their set").fill("Case A");
  await page.getByRole("button", { name: "Save with the filters" }).click();
  await expect(page.getByText("Saved with 3 filters")).toBeVisible();
  const sets = page.getByRole("region", { name: "Sets side by side" });
  await expect(sets).toContainText("Case A");
  // Measured corners are a trial on this rig, and what they were measured from says that it was simulated.
  await page.getByRole("link", { name: "Kit", exact: true }).click();
  await page.getByRole("link", { name: "Fit", exact: true }).click();
  await page.getByRole("button", { name: /^ND8/ }).first().click();
  await expect(page.getByRole("dialog")).toContainText("a case compared: simulated-wall");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
  // All of it is taken back as the one act that it was.
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Undone: Measure 3 filters")).toBeVisible();
  await page.getByRole("link", { name: "Sets", exact: true }).click();
  const none = page.getByRole("region", { name: "Sets", exact: true });
  await none.getByLabel("On the rig").selectOption({ label: "Row walker (pocket gimbal), in the hand" });
  await expect(none).toContainText("Name the set that filters came in");
  await expect(none).not.toContainText("Case A");
  await page.goto(`${app.url}/measure/case`);
  await page.getByRole("button", { name: "End without saving" }).click();
  await expect(page.getByRole("button", { name: "Start" })).toBeVisible();
});
