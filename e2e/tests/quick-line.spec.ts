import { edit, expect, on, openShot, test } from "../app.ts";

test("a line over a shot is answered while it is typed, and made another shot", async ({ page, app }) => {
  await test.step("a line is answered while it is typed, and Enter makes it a shot", async () => {
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
  await test.step("the answer lies over the open form of a shot, and can be pressed there", async () => {
    const before = page.url();
    await page.getByLabel(/^Quick line/).fill("EV 12.3 > 30 fps · 8 32");
    await page.getByRole("button", { name: "Make it a shot" }).click();
    await expect(page).not.toHaveURL(before);
  });
});

test("what of a line can be read is answered, and without light it makes no shot", async ({ page, app }) => {
  await test.step("what cannot be read says what it might be, and the rest is answered", async () => {
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
  await test.step("without light there is no answer, and no shot is made", async () => {
    await page.keyboard.press("/");
    await page.keyboard.press("ControlOrMeta+a");
    await page.keyboard.type("> wide");
    await expect(page.getByTestId("quick-answer")).toContainText("Say the light");
    await page.keyboard.press("Enter");
    await expect(page).toHaveURL(/\/shoot$/);
  });
});
