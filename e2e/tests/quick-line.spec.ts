import { expect, on, openShot, test } from "../app.ts";

test("a line is answered while it is typed, and Enter makes it a shot", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  await page.keyboard.press("/");
  const line = page.getByLabel(/^Quick line/);
  await expect(line).toBeFocused();
  const answer = page.getByTestId("quick-answer");
  await page.keyboard.type("f2 1/1250 iso50");
  await expect(answer).toContainText("EV 13.3");
  await page.keyboard.type(" > 50fps");
  // EV 13.29 to f/2.8, 1/100: 3.68 stops; ND16 measures 4.2.
  await expect(answer).toContainText("ND16");
  await expect(answer).toContainText("1/100 · ISO 100 · 180°");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the shot")).toHaveValue("Quick shot");
  await expect(on(page).meter).toHaveValue("f2 1/1250 iso50");
  await expect(on(page).glass).toHaveText("ND16");
  await expect(line).toHaveValue("");
});

test("a line that cannot be read says how to write it", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await expect(page.getByLabel(/^Quick line/)).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("EV 12 > wide");
  await expect(page.getByTestId("quick-answer")).toContainText("after > write the look, as in 50fps 180°");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/shoot$/);
  await page.keyboard.press("Escape");
  await expect(page.getByTestId("quick-answer")).toBeHidden();
});
