import type { Page } from "@playwright/test";
import { edit, expect, on, openShot, test, visit } from "../app.ts";

test.use({ demo: false });

const lineOf = (page: Page) => page.getByLabel(/^The shot in one line/);
const glassOf = (page: Page) => page.getByTestId("line-glass");

for (const [where, viewport] of [
  ["at the desk", { width: 1280, height: 800 }],
  ["on a phone", { width: 390, height: 844 }],
] as const) {
  test(`from an empty application a line is a true answer, and then one's own kit, ${where}`, async ({ page, app }) => {
    await page.setViewportSize(viewport);
    await page.goto(app.url); // 1
    await lineOf(page).fill("f2.8 1/1600 iso100 > 30"); // 2
    // f/2.8 at 1/1600 against 1/60: log2(1600/60) = 4.74 stops.
    await expect(glassOf(page)).toHaveText("ND32");
    await expect(page.getByTestId("line-others")).toContainText("Needs 4.7 stops, EV 13.6 ±0.2. ND16 +0.7, ND64 −1.3");
    await lineOf(page).fill("f2.8 1/1600 iso100 > 30 · 4 8 16/PL CPL VND 2-5"); // 3
    await expect(page.getByTestId("first-answer")).toContainText(
      "The camera, the shot, and the filters that the line names.",
    );
    await page.getByRole("button", { name: "Keep this" }).click(); // 4
    await expect(page.getByLabel("Name of the shot")).toHaveValue("Quick shot");
    await edit(page, "Light");
    await expect(on(page).meter).toHaveValue("f2.8 1/1600 iso100");
    // It can be shot now: its card needs no plan.
    await page.getByRole("link", { name: "Field card now" }).click();
    await expect(page.getByTestId("turn")).toContainText("Quick shot");
    await expect(page.getByTestId("figure-Filter")).not.toBeEmpty();
    await page.goto(`${app.url}/card`);
    await expect(page.getByTestId("turn")).toContainText("Quick shot");
    await visit(page, app, "/kit");
    const filters = page.getByRole("region", { name: "Filters" });
    for (const label of ["ND4", "ND8", "ND16/PL", "CPL", "VND 2-5 stop"])
      await expect(filters.getByText(label, { exact: true }).first()).toBeVisible();
    await expect(page.getByText("My camera").first()).toBeVisible();
  });
}

test("lines are answered as they are typed, tapped and changed", async ({ page, app }) => {
  await page.goto(app.url);
  await test.step("ten lines in different forms are answered", async () => {
    for (const [line, glass, words] of [
      [
        "gimbal f2 iso50-800 · f2 1/1250 iso50 · 25 fps 180° · walking, subject 1.4 m/s at 3 m · 4 8 16 32 CPL",
        "ND32",
        "Needs 4.6",
      ],
      ["sunny, sun behind me > 60fps", "ND32", "if it is brighter"],
      ["1/240 behind ND8 > 30fps", "ND32", "Needs 5.0"],
      ["helmet, auto 1/2000 > 30", "ND32", "Needs 5.1"],
      ["overcast, shade > 24 · 2 layers", "ND8", "if it is darker"],
      ["90000 lux > 25 fps · indoors 50 Hz", "ND128", "Needs 6.5"],
      ["EV 11.5 to 14.9 > 60 on 30", "ND32", "EV 11.5 to 14.9"],
      ["f2,8 1/1600 iso100 > 29,97", "ND32", "Needs 4.7"],
      ["bias +1 behind ND8 > 50 fps 90°", "ND16", "Needs 4.0"],
      ["EV 5 > 25", "No filter", "short of light"],
    ] as const) {
      await lineOf(page).fill(line);
      await expect(page.getByTestId("first-answer"), line).toContainText(words);
      await expect(glassOf(page), line).toHaveText(glass);
      await expect(page.getByTestId("unread"), line).toHaveCount(0);
    }
  });
  await test.step("a line is changed by its parts and by its text", async () => {
    await lineOf(page).fill("");
    await page.getByRole("button", { name: "drone · sunny, sun behind me > 25 fps" }).click();
    await expect(glassOf(page)).toHaveText("ND64");
    const parts = page.getByRole("group", { name: "Parts of the line" });
    // What was said is written over where it stands.
    await parts.getByRole("button", { name: "look: 25 fps" }).click();
    await page.keyboard.type("50 fps");
    await expect(lineOf(page)).toHaveValue("drone · sunny, sun behind me > 50 fps");
    // What was assumed is said, and written over.
    await parts.getByRole("button", { name: "look: 180°, assumed" }).click();
    await page.keyboard.type("90°");
    await expect(lineOf(page)).toHaveValue("drone · sunny, sun behind me > 50 fps · 90°");
    await expect(page.getByTestId("line-setting")).toContainText("1/2");
    await expect(parts.getByRole("button", { name: "look: 90°" })).toBeVisible();
  });
  await test.step("a sky that is tapped is a filter to put on, and one for the pocket", async () => {
    await lineOf(page).fill("");
    await page.getByRole("button", { name: "clouds with gaps" }).click();
    await expect(glassOf(page)).toHaveText(/^ND/);
    await expect(page.getByTestId("line-pocket")).toContainText(/ND\d+ if it is brighter, ND\d+ if it is darker/);
    await page.getByRole("button", { name: "heavy cloud" }).click();
    await expect(lineOf(page)).toHaveValue("heavy cloud");
    await page.getByRole("button", { name: "Keep this" }).click();
    await expect(page.getByLabel("Name of the shot")).toHaveValue("Quick shot");
    await edit(page, "Light");
    await page.reload(); // what was open is open again
    await expect(page.getByTestId("sky-seen")).toContainText("heavy cloud");
  });
});

test.describe("with the demo", () => {
  test.use({ demo: true });

  test("a shot is a sentence: its parts are written anew, and it is the shot that they say", async ({ page, app }) => {
    await openShot(page, app, "Crates down the lane");
    const line = page.getByTestId("shot-line");
    await expect(line.getByRole("button", { name: "light: auto 1/2000 iso100" })).toBeVisible();
    // A part opens its small form; the part itself can be written instead.
    await line.getByRole("button", { name: /^look: 50 fps/ }).click();
    const look = page.getByRole("region", { name: "Look", exact: true });
    await look.getByRole("button", { name: "Write it instead" }).click();
    await page.keyboard.type("100 fps");
    await page.keyboard.press("Enter");
    await expect(line.getByRole("button", { name: "look: 100 fps" })).toBeVisible();
    await expect(look.getByRole("button", { name: "100", exact: true })).toHaveAttribute("aria-pressed", "true");
    // What a form sets comes back as words, while it is open.
    await look.getByRole("button", { name: "90°", exact: true }).click();
    await expect(line.getByRole("button", { name: "look: 90°" })).toBeVisible();
    // What is taken out of the line is gone from the shot.
    const motion = line.getByRole("button", { name: /^motion: subject 4 m\/s at 2 m/ });
    await motion.click();
    await page.getByRole("button", { name: "Write it instead" }).click();
    await page.keyboard.press("Delete");
    await page.keyboard.press("Enter");
    await expect(motion).toHaveCount(0);
    // The way back closes the form that is open.
    await page.goBack();
    await expect(page.getByRole("region", { name: "Motion", exact: true })).toHaveCount(0);
    await line.getByRole("button", { name: "Write it…" }).click();
    await page.keyboard.type(" · sunni");
    await page.getByTestId("unread").getByRole("button", { name: "clear sky" }).click();
    await page.keyboard.press("Escape");
    await expect(on(page).saved).toHaveText(/^saved/);
    await page.reload();
    await expect(line.getByRole("button", { name: "look: 100 fps" })).toBeVisible();
  });

  test("a line that names filters makes a shot that chooses from them, until it is said otherwise", async ({
    page,
    app,
  }) => {
    await page.goto(app.url);
    // By the beginning of its name; ND16 would come nearest, and is not named.
    await page.getByLabel(/^Quick line/).fill("pond drone EV 12.3 > 30 fps · 4 64");
    await expect(glassOf(page)).toHaveText("ND4");
    await expect(page.getByTestId("line-setting")).toContainText("1/160, ISO 100");
    await page.getByRole("button", { name: "Make it a shot" }).click();
    await expect(on(page).glass).toHaveText("ND4");
    await expect(page.getByTestId("setting")).toContainText("1/160 · ISO 100");
    const line = page.getByTestId("shot-line");
    await expect(line.getByRole("button", { name: "kit: of ND4, ND64" })).toBeVisible();
    await expect(page.getByRole("group", { name: "Filters to put on" }).getByRole("button")).toHaveCount(2);
    // What would help, and was left at home, is the first way out.
    await expect(on(page).trades).toContainText("that is not at hand");

    await line.getByRole("button", { name: "Write it…" }).click();
    await page.keyboard.type(" VND 2-5 ND1000");
    await expect(page.getByTestId("line-missing")).toHaveText(
      "Left out, as Pond drone (camera drone) has none: ND1000",
    );
    await expect(page.getByTestId("line-words")).toContainText("VND 2-5 stop");
    await page.keyboard.press("Enter");
    await expect(on(page).glass).toContainText("VND 2-5 stop");
    await expect(line.getByRole("button", { name: "kit: of ND4, ND64, VND 2-5 stop" })).toBeVisible();

    // Without any: its line says so, and it is the same shot when it is written.
    await line.getByRole("button", { name: "Write it…" }).click();
    await page.getByRole("textbox", { name: "The shot in one line" }).fill("pond drone EV 12.3 > 30 fps · no filters");
    await expect(page.getByTestId("line-words")).toContainText("No filter, ");
    await page.keyboard.press("Enter");
    await expect(on(page).glass).toHaveText("No filter");
    await line.getByRole("button", { name: "kit: no filter at hand" }).click();
    await expect(page.getByRole("region", { name: "Filters", exact: true }).getByLabel("ND4")).toHaveValue("away");
    await line.getByRole("button", { name: "Write it…" }).click();
    await page
      .getByRole("textbox", { name: "The shot in one line" })
      .fill("pond drone EV 12.3 > 30 fps · 4 64 VND 2-5");
    await page.keyboard.press("Enter");
    await expect(on(page).glass).toContainText("VND 2-5 stop");

    // Filter by filter; where all are at hand the line says nothing of them.
    await page
      .getByRole("link", { name: /^3 not at hand/ })
      .first()
      .click();
    const filters = page.getByRole("region", { name: "Filters", exact: true });
    await filters.getByLabel("VND 2-5 stop").selectOption({ label: "not at hand" });
    for (const label of ["ND16", "CPL", "ND32/PL"]) {
      await expect(filters.getByLabel(label, { exact: true })).toHaveValue("away");
      await filters.getByLabel(label, { exact: true }).selectOption({ label: "as needed" });
    }
    await expect(line.getByRole("button", { name: /^kit: of ND4, ND16, ND64/ })).toBeVisible();
    await filters.getByLabel("VND 2-5 stop").selectOption({ label: "as needed" });
    await expect(line.getByRole("button", { name: /^kit: of/ })).toHaveCount(0);
    await filters.getByRole("button", { name: "Done" }).click();
    await expect(on(page).saved).toHaveText(/^saved/);
    await page.reload();
    await expect(page.getByRole("group", { name: "Filters to put on" }).getByRole("button")).toHaveCount(6);
    await expect(page.getByRole("link", { name: /not at hand/ })).toHaveCount(0);
    // What is put on by hand is said so on the list, of a shot without a time too.
    const stored = page.waitForResponse((r) => r.request().method() === "PUT" && r.ok());
    await page.getByRole("group", { name: "Filters to put on" }).getByRole("button", { name: "ND64" }).first().click();
    await stored;
    // And what it costs, in the words of the shot.
    await expect(on(page).state).toContainText("makes up");
    const [, costs = ""] = (await on(page).state.innerText()).split("\n");
    await page.getByRole("link", { name: "Shoots", exact: true }).click();
    const row = page.getByRole("link", { name: /ND64, by hand/ });
    await expect(row).toContainText(`tight · ${costs}`);
  });
});

test("familiar glass has a short list, and the full one when asked", async ({ page, app }) => {
  const kept = await page.request.post(`${app.url}/api/keep`, {
    data: { line: "action f2.8 1/1600 iso100 > 30 · 8 16 32" },
  });
  const shot = await kept.json();
  // That it was checked whole on another day takes another day.
  await page.route("**/api/shoots/*/card?*", async (route) => {
    const answer = await route.fetch();
    const card = await answer.json();
    const { outing } = card.request;
    card.request.known = outing.stacks.map((stack: { id: string; cameraId: string; rigId?: string }) => ({
      cameraId: stack.cameraId,
      ...(stack.rigId && { rigId: stack.rigId }),
      stack: stack.id,
    }));
    await route.fulfill({ response: answer, json: card });
  });
  await page.goto(`${app.url}/card/${shot.shootId}?shot=${shot.id}`);
  await page.getByRole("button", { name: /^Checks/ }).click();
  const steps = page.getByRole("dialog").getByRole("checkbox");
  await expect(page.getByTestId("known-glass")).toContainText("A short list");
  await expect(steps).toHaveCount(3);
  await page.getByRole("button", { name: "Full list" }).click();
  await expect(page.getByTestId("known-glass")).toHaveCount(0);
  expect(await steps.count()).toBeGreaterThan(5);
});
