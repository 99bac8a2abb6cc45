import { edit, expect, on, openShot, test } from "../app.ts";

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
  await expect(answer.getByTestId("line-glass")).toHaveText("ND16");
  await expect(answer.getByTestId("line-setting")).toContainText("1/100, ISO 100");
  // The camera of the open shot is meant, with its glass and what its last shot asked.
  await expect(answer.getByRole("button", { name: /^kit: ND16, assumed/ })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the shot")).toHaveValue("Quick shot");
  await edit(page, "Light");
  await expect(on(page).meter).toHaveValue("f2 1/1250 iso50");
  await expect(on(page).glass).toHaveText("ND16");
});

test("what cannot be read says what it might be, and the rest is answered", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await expect(page.getByLabel(/^Quick line/)).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("pond drone (camera drone) EV 14 > 25 fps · overcats");
  const answer = page.getByTestId("quick-answer");
  await expect(answer.getByTestId("line-glass")).not.toBeEmpty();
  await expect(answer.getByTestId("unread")).toContainText("overcats");
  await page.keyboard.type(" · hellmet");
  await answer.getByTestId("unread").getByRole("button", { name: "helmet" }).click();
  await expect(page.getByLabel(/^Quick line/)).toHaveValue(
    "pond drone (camera drone) EV 14 > 25 fps · overcats · helmet",
  );
  await page.keyboard.press("Escape");
  await expect(answer).toBeHidden();
});

test("without light there is no answer, and no shot is made", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await expect(page.getByLabel(/^Quick line/)).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("> wide");
  await expect(page.getByTestId("quick-answer")).toContainText("Say the light");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/shoot$/);
});

test("the answer lies over the open form of a shot, and can be pressed there", async ({ page, app }) => {
  await openShot(page, app, "Pond from above");
  await edit(page, "Light");
  await page.getByLabel(/^Quick line/).fill("EV 12.3 > 30 fps · 8 32");
  await page.getByRole("button", { name: "Make it a shot" }).click();
  await expect(page.getByLabel("Name of the shot")).not.toHaveValue("Pond from above");
});
