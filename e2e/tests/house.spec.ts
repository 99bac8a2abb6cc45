import type { Locator } from "@playwright/test";
import { edit, expect, on, openShot, test, visit } from "../app.ts";

declare global {
  interface Window {
    /** What has moved on the page by itself, as a share of the window. */
    shifted?: number;
    /** Where a drawer stood in each frame. */
    stood?: number[];
  }
}

test("a chain of changes over places is taken back with Ctrl+Z, step by step", async ({ page, app }) => {
  // A shot is changed,
  await openShot(page, app, "Crates down the lane");
  const look = await edit(page, "Look");
  await look.getByRole("button", { name: "25", exact: true }).click();
  await expect(on(page).setting).toHaveText(/^1\/50/);
  await expect(on(page).saved).toHaveText(/^saved/);
  await look.getByRole("button", { name: "Done" }).click();
  // a filter is added,
  await page.getByRole("link", { name: "Kit", exact: true }).click();
  await page.getByLabel("Label on the ring").fill("ND1000");
  await page.getByRole("button", { name: "Add filter" }).click();
  const added = page.getByRole("cell", { name: "ND1000", exact: true });
  await expect(added).toBeVisible();
  // and another is deleted.
  await page.getByRole("button", { name: "Delete mist 1/4" }).click();
  const mist = page.getByRole("button", { name: "Delete mist 1/4" });
  await expect(mist).toHaveCount(0);

  await page.locator("body").click();
  await page.keyboard.press("ControlOrMeta+z");
  await expect(mist).toBeVisible();
  await page.keyboard.press("ControlOrMeta+z");
  await expect(added).toHaveCount(0);
  await page.getByRole("link", { name: "Shot", exact: true }).click();
  await expect(on(page).setting).toHaveText(/^1\/50/);
  await page.locator("h1").first().focus();
  await page.keyboard.press("ControlOrMeta+z");
  await expect(on(page).setting).toHaveText(/^1\/100/);
  await expect(on(page).saved).toHaveText(/^saved/);
  await page.reload();
  await expect(on(page).setting).toHaveText(/^1\/100/);
  // Nothing is left to take back, and asking for it does nothing.
  await page.keyboard.press("ControlOrMeta+z");
  await expect(on(page).setting).toHaveText(/^1\/100/);
});

test("a change that waits to be stored is the first to be taken back", async ({ page, app }) => {
  await page.goto(app.url);
  await page.getByLabel(/^Quick line/).fill("pond drone EV 12.3 > 30 fps");
  await page.getByRole("button", { name: "Make it a shot" }).click();
  const { glass } = on(page);
  const best = await glass.innerText();
  const filter = page.getByRole("group", { name: "Filters to put on" }).first().getByRole("button", { name: "ND4" });
  await filter.click();
  await expect(glass).not.toHaveText(best);
  await page.keyboard.press("Control+z");
  await expect(page.getByText("Undone: Change Quick shot")).toBeVisible();
  await expect(glass).toHaveText(best);
  // Who leaves at once has it stored on the way out.
  await filter.click();
  await expect(glass).not.toHaveText(best);
  await page.getByRole("link", { name: "Shoots", exact: true }).click();
  await page.keyboard.press("Control+z");
  await expect(page.getByRole("link", { name: /Quick shot.*ND32\/PL tight/s })).toBeVisible();
});

test("the palette goes to shots, places and filters, and does things", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await expect(page.getByRole("link", { name: /Pond from above/ })).toBeVisible();
  await page.keyboard.press("ControlOrMeta+k");
  const palette = page.getByRole("dialog", { name: "Go to, or do" });
  await expect(palette).toBeVisible();
  await page.keyboard.type("pond");
  await page.keyboard.press("Enter");
  await expect(page.getByLabel("Name of the shot")).toHaveValue("Pond from above");
  await expect(page).toHaveTitle("Pond from above · Shot · Pinhole");
  await page.keyboard.press("ControlOrMeta+k");
  await page.keyboard.type("coverage");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/kit\/coverage$/);
  await expect(page).toHaveTitle("Coverage · Kit · Pinhole");
  await page.getByRole("button", { name: "Go to, or do" }).click();
  await page.keyboard.type("nothing of that name");
  await expect(palette).toContainText("Nothing is called so.");
  await page.keyboard.press("Escape");
  await expect(palette).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Go to, or do" })).toBeFocused();
  await page.goBack();
  await expect(page.getByLabel("Name of the shot")).toHaveValue("Pond from above");
});

test("Shot, Day and Kit fit 1280x800 without scrolling", async ({ page, app }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  const height = () => page.evaluate(() => document.documentElement.scrollHeight);
  for (const shot of ["Crates down the lane", "Dive down the terraces", "Lantern supper"]) {
    await openShot(page, app, shot);
    await expect(page.getByTestId("look-at-test")).toContainText("Look at");
    expect(await height(), shot).toBeLessThanOrEqual(800);
  }
  await visit(page, app, "/shoot");
  await page.getByRole("link", { name: "Plan the day" }).click();
  await expect(page.getByTestId("plan")).toContainText("Noon walk");
  expect(await height(), "day").toBeLessThanOrEqual(800);
  await visit(page, app, "/kit");
  await expect(page.getByRole("button", { name: "Delete UV" })).toBeInViewport();
  expect(await height(), "kit").toBeLessThanOrEqual(800);
  await visit(page, app, "/kit/fit");
  await expect(page.getByRole("region", { name: "Fit table" })).toBeVisible();
  expect(await height(), "fit").toBeLessThanOrEqual(800);
});

test("what is shown stays where it is while the rest comes", async ({ page, app }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.addInitScript(() => {
    new PerformanceObserver((list) => {
      for (const shift of list.getEntries() as (PerformanceEntry & { value: number })[])
        window.shifted = (window.shifted ?? 0) + shift.value;
    }).observe({ type: "layout-shift", buffered: true });
  });
  const { items } = await (await page.request.get(`${app.url}/api/shoots`)).json();
  await openShot(page, app, "Pond from above");
  const places: [address: string, last: Locator][] = [
    [new URL(page.url()).pathname, page.getByTestId("plan-line").getByText("forecast")],
    ["/shoot", page.getByTestId("lights").last()],
    [`/shoot/${items[0].id}`, page.getByTestId("plan").getByText("Noon walk")],
    ["/kit", page.getByRole("button", { name: "Delete UV" })],
    ["/measure", page.getByRole("button", { name: "A shutter test" })],
    ["/practice", page.getByRole("heading", { name: "Your judgement" })],
  ];
  for (const [address, last] of places) {
    await page.goto(app.url + address);
    await expect(last).toBeVisible();
    // A tenth of the window is where a hand begins to miss.
    expect(await page.evaluate(() => window.shifted ?? 0), address).toBeLessThan(0.1);
  }
});

test("the drawers of a shot stand still from the moment that they are there", async ({ page, app }) => {
  await page.addInitScript(() => {
    const watch = () => {
      const drawer = document.querySelector('details[aria-label="In the plan"]');
      if (drawer) window.stood = [...(window.stood ?? []), Math.round(drawer.getBoundingClientRect().y)];
      requestAnimationFrame(watch);
    };
    watch();
  });
  await openShot(page, app, "Pond from above");
  await expect(page.getByTestId("look-at-reference")).toContainText("Look at");
  await expect(page.getByRole("group", { name: "In the plan", exact: true })).toBeVisible();
  await page.waitForFunction(() => (window.stood?.length ?? 0) > 1); // looked at with each frame, a busy machine's too
  expect(new Set(await page.evaluate(() => window.stood)).size).toBe(1);
});

test("a line of which nothing can be read takes nothing from the shot", async ({ page, app }) => {
  await openShot(page, app, "Noon walk on the terrace");
  const line = page.getByTestId("shot-line");
  await expect(line.getByRole("button", { name: "motion: walking" })).toBeVisible();
  await line.getByRole("button", { name: "Write it…" }).click();
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("banana 🍌 qwertz");
  await expect(page.getByText("Nothing of this could be read")).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByText("Nothing of this could be read")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(line.getByRole("button", { name: "motion: walking" })).toBeVisible();
  await expect(line.getByRole("button", { name: /^motion: subject 1\.4 m\/s/ })).toBeVisible();
});

test("what may be wanted next is loaded ahead, unless data is spared", async ({ page, app }) => {
  const ofTheKit: string[] = [];
  page.on("request", (r) => {
    if (r.url().includes("/KitPlace")) ofTheKit.push(r.url());
  });
  const list = page.getByRole("link", { name: /Pond from above/ });
  await page.goto(`${app.url}/shoot`); // as all tests have it, sparing
  await expect(list).toBeVisible();
  await page.waitForTimeout(2_000); // it is loaded a second after the page was drawn
  expect(ofTheKit).toEqual([]);
  await page.addInitScript(() => Object.defineProperty(navigator, "connection", { value: { saveData: false } }));
  await page.reload();
  await expect(list).toBeVisible();
  await expect.poll(() => ofTheKit.length).toBeGreaterThan(0);
});

test("places that hold nothing yet say so, and show the way on", async ({ page, app }) => {
  await page.goto(`${app.url}/measure`);
  await expect(page.getByRole("heading", { name: "Measure" })).toBeVisible();
  await expect(page.getByText("Read a test frame to see its advice here.")).toBeVisible();
  await page.getByRole("link", { name: "Log", exact: true }).click();
  await page.getByRole("button", { name: "Field cards" }).click();
  await expect(page.getByRole("region", { name: "Marl Terrace harvest" })).toContainText("nothing noted");
  await page.getByRole("link", { name: "Practice", exact: true }).click();
  await expect(page.getByTestId("kinds").getByRole("row", { name: "Polariser not asked yet" })).toBeVisible();
});

test("the interface for programs is described by the server, and its examples run", async ({ page, app }) => {
  await page.goto(`${app.url}/api-docs.html`);
  await page.locator("#operations-tag-calc button").first().click();
  const sun = page.locator("#operations-calc-calc-sun");
  await sun.getByRole("button").first().click();
  await sun.getByRole("button", { name: "Execute" }).click();
  await expect(sun.locator(".live-responses-table")).toContainText('"altitudeDeg": 16.0');
});
