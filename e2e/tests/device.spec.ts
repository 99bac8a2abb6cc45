import { drawer, edit, expect, on, openShot, test, visit } from "../app.ts";

/** A figure of stops with a decimal point, and with a comma. */
const WITH_POINT = /\d\.\d+ stops/;
const WITH_COMMA = /\d,\d+ stops/;

test.describe("on a device whose language writes decimal commas", () => {
  test.use({ locale: "de-DE" });

  test("figures have commas, in what the core says too, and both marks are read", async ({ page, app }) => {
    await openShot(page, app, "Crates down the lane");
    await expect(on(page).state).toContainText(WITH_COMMA);
    await expect(page.getByTestId("look-at-test")).toContainText("Look at");
    await drawer(page, "Why");
    await drawer(page, "Other filters");
    await expect(page.locator("main")).toContainText(WITH_COMMA);
    await expect(page.locator("main")).not.toContainText(WITH_POINT);
    const motion = await edit(page, "Motion");
    const distance = motion.getByLabel("Distance, m");
    await distance.fill("2,5 m");
    await expect(page.getByTestId("shot-line")).toContainText("2,5 m");
    await distance.fill("3.5");
    await expect(page.getByTestId("shot-line")).toContainText("3,5 m");
    await page.reload();
    await edit(page, "Motion");
    await expect(distance).toHaveValue("3,5");
    await visit(page, app, "/card");
    await page.getByRole("button", { name: "Terrace quad" }).click();
    await page.getByRole("button", { name: "Goes wrong" }).click();
    await expect(page.getByRole("dialog")).toContainText(WITH_COMMA);
  });

  test("days stand in the order of the language, typed and chosen", async ({ page, app }) => {
    await page.goto(`${app.url}/shoot`);
    await page.getByRole("link", { name: "Plan the day" }).click();
    const first = page.getByLabel("First day", { exact: true });
    await expect(first).toHaveValue("20.09.2031");
    await first.fill("19.09.2031");
    await first.press("Enter");
    await page.getByRole("button", { name: "Save place and days" }).click();
    await expect(page.getByRole("button", { name: /19\. Sept/ })).toBeVisible();
  });
});

test.describe("on a device of a country of miles and feet", () => {
  test.use({ locale: "en-US" });

  test("speeds and distances are in mph and feet, clocks have twelve hours, and it can be changed", async ({
    page,
    app,
  }) => {
    await openShot(page, app, "Crates down the lane");
    await expect(page.getByText(/10:40 AM/).first()).toBeVisible();
    const motion = await edit(page, "Motion");
    await expect(motion.getByLabel("Subject speed, mph")).toHaveValue("8.948");
    await expect(motion).toContainText(/passes within \d+ ft/);
    await motion.getByLabel("Distance, ft").fill("10");
    await expect(on(page).saved).toContainText("saved");
    // What was typed and not read stays as it was typed.
    const line = page.getByLabel(/^Quick line/);
    await line.fill("EV 14, 30 m away, 25 fps");
    await expect(page.getByTestId("unread")).toContainText("Not read: 30 m");
    await line.press("Escape");
    await page.getByRole("button", { name: "Settings" }).click();
    const settings = page.getByRole("dialog", { name: "Settings of this device" });
    const licences = await settings.getByRole("link", { name: /^Licences/ }).getAttribute("href");
    const notices = await (await page.request.get(app.url + licences)).text();
    for (const shipped of ["gin-gonic/gin", "react-dom", "atkinson-hyperlegible"]) expect(notices).toContain(shipped);
    await settings.getByRole("group", { name: "Distance" }).getByRole("button", { name: "m", exact: true }).click();
    await settings.getByRole("group", { name: "Speed" }).getByRole("button", { name: "km/h" }).click();
    await page.keyboard.press("Escape");
    await expect(motion.getByLabel("Distance, m")).toHaveValue("3.048");
    await expect(motion).toContainText(/passes within [\d.]+ m/);
    await expect(motion.getByLabel("Subject speed, km/h")).toHaveValue("14.4");
  });
});

test.describe("where the reader's own colours are forced and motion is not wanted", () => {
  test.use({ contextOptions: { forcedColors: "active", reducedMotion: "reduce" } });

  test("what is chosen is told by its edge, drawings keep their ground, loops stand still", async ({ page, app }) => {
    await openShot(page, app, "Crates down the lane");
    await expect(on(page).state).toContainText("breaks");
    const chosen = page.getByRole("button", { pressed: true }).first();
    await expect(chosen).toHaveCSS("outline-style", "solid");
    const ground = (selector: string) =>
      page
        .locator(selector)
        .evaluate((e) => [getComputedStyle(e).forcedColorAdjust, getComputedStyle(e).backgroundColor]);
    expect(await ground("[data-testid=stop-rail] svg")).toEqual(["none", "rgb(255, 255, 255)"]);
    await expect(page.getByRole("button", { name: "Play" })).toBeVisible();
    const frame = page.getByText(/^frame \d+ of 16/);
    const was = await frame.textContent();
    await page.waitForTimeout(500);
    expect(await frame.textContent()).toBe(was);
  });
});

test("on paper there is the answer and no bar, and long lists are whole", async ({ page, app }) => {
  await page.goto(`${app.url}/kit`);
  await expect(page.getByRole("button", { name: "Delete UV" })).toBeVisible();
  await page.emulateMedia({ media: "print" });
  await expect(page.getByRole("navigation", { name: "Places" })).toBeHidden();
  const cut = await page.evaluate(
    () =>
      [...document.querySelectorAll("main *")].filter((e) => /auto|scroll/.test(getComputedStyle(e).overflowY)).length,
  );
  expect(cut).toBe(0);
});

test("the card keeps the screen on and says a swap before its latest minute", async ({ page, app, context }) => {
  await context.grantPermissions(["notifications"], { origin: app.url });
  await page.addInitScript(() => {
    const seen = { wakeLocks: 0, notes: [] as string[] };
    Object.assign(window, { seen });
    const sentinel = { release: async () => {} };
    Object.defineProperty(navigator, "wakeLock", {
      value: { request: async () => ({ ...sentinel, at: seen.wakeLocks++ }) },
    });
    class Note {
      static permission = "granted";
      constructor(title: string) {
        seen.notes.push(title);
      }
    }
    Object.assign(window, { Notification: Note });
  });
  const seen = () => page.evaluate(() => (window as unknown as { seen: { wakeLocks: number; notes: string[] } }).seen);
  await page.clock.setFixedTime(new Date("2031-09-20T12:30:00-01:00"));
  await page.goto(`${app.url}/card`);
  await page.getByRole("button", { name: /Row walker/ }).click();
  await expect(page.getByTestId("swap")).toContainText("Next swap by 12:50");
  await expect.poll(async () => (await seen()).wakeLocks).toBeGreaterThan(0);
  expect((await seen()).notes).toEqual([]);
  await page.clock.setFixedTime(new Date("2031-09-20T12:42:00-01:00"));
  await expect(page.getByText("Swap by 12:50: ND8 + ND32")).toBeVisible({ timeout: 20_000 });
  await expect.poll(async () => (await seen()).notes).toEqual(["Swap by 12:50: ND8 + ND32"]);
});

test("the place of a shoot comes from the device when it is asked, and says why when it does not", async ({
  page,
  app,
  context,
}) => {
  await page.goto(`${app.url}/shoot`);
  await page.getByRole("link", { name: "Plan the day" }).click();
  const here = page.getByRole("button", { name: "Where I am" });
  await here.click();
  await expect(page.getByText(/Type the place instead\./)).toBeVisible();
  await context.grantPermissions(["geolocation"], { origin: app.url });
  await context.setGeolocation({ latitude: 39.12345, longitude: -22.5 });
  await here.click();
  await expect(page.getByLabel("Latitude, ° north")).toHaveValue("39.1234");
  await expect(page.getByLabel("Longitude, ° east")).toHaveValue("−22.5");
});

test("the page installs, with its shortcuts and as a target of sharing", async ({ page, app }) => {
  await page.goto(`${app.url}/kit`);
  const href = await page.locator("link[rel=manifest]").getAttribute("href");
  const manifest = await (await page.request.get(new URL(href ?? "", app.url).href)).json();
  expect(manifest.shortcuts.map((s: { url: string }) => s.url)).toEqual(["/card", "/shoot", "/kit"]);
  expect(manifest.share_target.method).toBe("POST");
  await page.evaluate(() => {
    const offer = new Event("beforeinstallprompt", { cancelable: true });
    Object.assign(offer, { prompt: async () => document.body.setAttribute("data-installed", "yes") });
    window.dispatchEvent(offer);
  });
  await page.getByRole("button", { name: "Settings" }).click();
  await page.getByRole("button", { name: "Install on this device" }).click();
  await expect(page.locator("body")).toHaveAttribute("data-installed", "yes");
});

test("every control of Shot, Day and Kit is reached by the keyboard", async ({ page, app }) => {
  for (const open of [
    () => openShot(page, app, "Crates down the lane"),
    async () => {
      await visit(page, app, "/shoot");
      await page.getByRole("link", { name: "Plan the day" }).click();
      await expect(page.getByTestId("plan")).toContainText("Noon walk");
    },
    async () => {
      await visit(page, app, "/kit");
      await expect(page.getByRole("button", { name: "Delete UV" })).toBeVisible();
    },
  ]) {
    await open();
    const wanted = await page.evaluate(() => {
      const all = document.querySelectorAll(
        "main :is(button, a[href], input:not([hidden], [type=file]), select, summary)",
      );
      const shown = [...all].filter((e) => e.checkVisibility() && !e.matches(":disabled, [tabindex='-1']"));
      for (const e of shown) e.setAttribute("data-missed", "");
      document.addEventListener("focusin", (event) => (event.target as Element).removeAttribute("data-missed"));
      return shown.length;
    });
    expect(wanted).toBeGreaterThan(10);
    for (let i = 0; i < wanted + 60; i++) await page.keyboard.press("Tab");
    const missed = await page.evaluate(() =>
      [...document.querySelectorAll("[data-missed]")].map((e) => e.outerHTML.slice(0, 160)),
    );
    expect(missed).toEqual([]);
  }
});
