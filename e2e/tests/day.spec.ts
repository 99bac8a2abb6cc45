import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import ICAL from "ical.js";
import { type App, expect, test, visit } from "../app.ts";

async function openDay(page: Page, app: App) {
  await page.goto(`${app.url}/shoot`);
  await page.getByRole("link", { name: "Plan the day" }).click();
  await expect(page.getByTestId("plan")).toContainText("Noon walk on the terrace");
}

const plan = (page: Page) => page.getByTestId("plan");
const bar = (page: Page, name: string) => page.getByRole("slider", { name });

test("the weekend is planned, anchored a stop darker at noon, and followed", async ({ page, app }) => {
  await openDay(page, app);
  await expect(page.getByTestId("sun-words")).toContainText("sunrise 06:07, sunset 18:22");
  await expect(bar(page, "Noon walk on the terrace")).toHaveAttribute("aria-valuetext", /12:50 to 13:10: ND8 \+ ND32/);
  await expect(page.getByRole("region", { name: "Swaps" })).toContainText(
    "12:50 swap ND32 for ND8 + ND32, for Noon walk on the terrace",
  );
  // One layer is all that the quad takes: nothing it has is enough, and what would be is said.
  await expect(plan(page).locator("> *", { hasText: "Dive down the terraces" })).toContainText(
    /Density 1\.5 \(3 batteries\).*Option: a filter of 7\.0 stops \(ND128\)\..*Option: a shutter of 1\/240 in place of 1\/125/,
  );
  await expect(plan(page).locator("> *", { hasText: "Press cellar" })).toContainText("VND 1-6");
  await page.getByRole("button", { name: "Save this plan" }).click();
  const light = page.getByRole("region", { name: "Light read on the spot" });
  await light.getByLabel("What it says").fill("thirteen");
  await light.getByRole("button", { name: "Save reading" }).click();
  await expect(light.getByRole("alert")).toContainText("f2 1/1250 iso50");
  await light.getByLabel("What it says").fill("EV 13.4");
  await light.getByRole("button", { name: "Save reading" }).click();
  await expect(light.getByTestId("anchor")).toContainText(
    "Corrected by the reading at 12:00: EV 13.4, −1.5 stops against the forecast",
  );
  const changes = page.getByTestId("changes");
  await expect(changes).toContainText("Crates down the lane: ND4 in place of ND8");
  // Sunday is another day.
  await expect(changes).not.toContainText("Pond");
  await page.reload();
  await expect(light.getByTestId("anchor")).toContainText("EV 13.4");
  await light.getByRole("button", { name: "Do not use it" }).click();
  await expect(changes).toHaveCount(0);
  await light.getByRole("button", { name: "Use it", exact: true }).click();
  await expect(changes).toContainText("Crates down the lane");
});

test("a shot dragged past sunset says what would serve it, by mouse and by key", async ({ page, app }) => {
  await openDay(page, app);
  const noon = bar(page, "Noon walk on the terrace");
  const row = plan(page).locator("> *", { hasText: "Noon walk" });
  const box = await noon.locator("rect").first().boundingBox();
  if (!box) throw new Error("no bar");
  await page.mouse.move(box.x + 6, box.y + 20);
  await page.mouse.down();
  await page.mouse.move(box.x + 240, box.y + 20, { steps: 8 });
  await expect(row).toContainText(/1[5-9]:\d\d/); // it replans while it is dragged
  // Where the same camera shoots something else, it says so, and the last plan stays.
  const supper = await bar(page, "Lantern supper").locator("rect").first().boundingBox();
  await page.mouse.move((supper?.x ?? 0) + 20, box.y + 20, { steps: 8 });
  await expect(page.getByText(/a time at which its camera is free: it shoots/)).toBeVisible();
  await page.mouse.move((supper?.x ?? 0) - 42, box.y + 20, { steps: 8 });
  await page.mouse.up();
  await expect(row).toContainText(/1[89]:\d\d/);
  await expect(row).toContainText(/\d+\.\d stops under in the darkest light/);
  await expect(row).toContainText(/[Oo]ption: /);
  await expect(page.getByText("Noon walk on the terrace moved")).toBeVisible(); // it is stored
  await page.reload();
  await expect(row).toContainText(/1[89]:\d\d/);

  const crates = bar(page, "Crates down the lane");
  const said = (await crates.getAttribute("aria-valuetext")) ?? "";
  await crates.focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("Shift+ArrowLeft");
  await page.keyboard.press("+");
  await expect(crates).toHaveAttribute("aria-valuetext", /10:49 to 11:29/);
  // One note takes back what several keys moved.
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(crates).toHaveAttribute("aria-valuetext", said);
});

test("a weekend from nothing: a place, a track, a still, and the simulated meter", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await page.getByLabel("A new shoot").fill("Another weekend");
  await page.getByRole("button", { name: "Add shoot" }).click();
  const card = page.getByRole("region", { name: "Another weekend" });
  await card.getByRole("button", { name: "New shot" }).click();
  await expect(page.getByLabel("Name of the shot")).toHaveValue("New shot");
  await visit(page, app, "/shoot");
  await card.getByRole("link", { name: "Plan the day" }).click();
  await expect(page.getByText("Say where the shoot is, below")).toBeVisible();

  const where = page.getByRole("region", { name: "Where and when" });
  await where.getByLabel("A track").setInputFiles({
    name: "bomb.gpx",
    mimeType: "application/gpx+xml",
    buffer: Buffer.from('<!DOCTYPE gpx [<!ENTITY a "aaaa">]><gpx>&a;</gpx>'),
  });
  await expect(where.getByRole("alert")).toContainText("a document type is declared");
  const points = Array.from(
    { length: 60 },
    (_, i) =>
      `<trkpt lat="${38.4 + i * 0.00005}" lon="-20.5"><time>2031-09-20T11:00:${String(i).padStart(2, "0")}Z</time></trkpt>`,
  );
  await where.getByLabel("A track").setInputFiles({
    name: "ride.gpx",
    mimeType: "application/gpx+xml",
    buffer: Buffer.from(`<gpx version="1.1"><trk><trkseg>${points.join("")}</trkseg></trk></gpx>`),
  });
  await expect(page.getByTestId("track")).toContainText("60 points");
  await expect(page.getByTestId("track")).toContainText("nine tenths under 5.6");
  await expect(where.getByLabel("First day", { exact: true })).toHaveValue("20/09/2031");
  await where.getByRole("button", { name: "Save place and days" }).click();
  await expect(page.getByTestId("sun-words")).toContainText("sunrise 06:0");
  await expect(page.getByText("Etc/GMT+1").first()).toBeVisible();

  await page.getByRole("button", { name: "Put it at noon" }).click();
  await expect(plan(page)).toContainText("Sat 20 Sept, 12:00");
  await page.getByRole("button", { name: "Details of New shot" }).click();
  const sheet = page.getByRole("region", { name: "Shot in daylight" });
  await sheet.getByLabel("Light on the subject").selectOption({ label: "upright" });
  await sheet.getByLabel("Camera looks to, °").fill("90");
  await expect(sheet.getByTestId("polariser")).toContainText("A polariser would darken the sky by");
  await expect(plan(page)).toContainText("the sun is at the side");

  const light = page.getByRole("region", { name: "Light read on the spot" });
  await light.getByRole("button", { name: "Photo" }).click();
  await light.getByLabel("A photo").setInputFiles({ name: "x.jpg", mimeType: "image/jpeg", buffer: Buffer.from("no") });
  await expect(light.getByRole("alert")).toContainText("a JPEG, PNG, HEIC, AVIF or raw file with EXIF");
  await light.getByLabel("Filter on, stops").fill("3");
  await light.getByLabel("A photo").setInputFiles("../core/exif/testdata/noon.jpg");
  await expect(light.getByTestId("anchor")).toContainText("Corrected by the reading at 12:00: EV 15.0");
  await light.getByRole("button", { name: "Simulated meter" }).click();
  await light.getByRole("button", { name: "Save reading" }).click();
  await expect(light.getByTestId("anchor")).toContainText("(simulated)");
  await expect(light.getByRole("region", { name: "Readings" })).toContainText("noon.jpg: f2 1/1000 iso100");
});

test("the day goes out as files, the year is walked, and the sky is chosen", async ({ page, app }) => {
  await openDay(page, app);
  await test.step("the plan goes out as a calendar that updates, and as tables", async () => {
    const calendar = async () => {
      const [download] = await Promise.all([
        page.waitForEvent("download"),
        page.getByRole("link", { name: "Calendar" }).click(),
      ]);
      const root = new ICAL.Component(ICAL.parse(await readFile(await download.path(), "utf8")));
      return root
        .getAllSubcomponents("vevent")
        .map((c) => ({ event: new ICAL.Event(c), alarms: c.getAllSubcomponents("valarm").length }));
    };
    const before = await calendar();
    expect(before).toHaveLength(9); // seven shots and two swaps
    const noon = before.find(({ event }) => event.summary.startsWith("Noon walk"));
    expect(noon?.event.summary).toBe("Noon walk on the terrace: ND8 + ND32");
    expect(noon?.event.startDate.toJSDate().toISOString()).toBe("2031-09-20T13:50:00.000Z");
    expect(before.every(({ alarms }) => alarms === 1)).toBe(true);
    await bar(page, "Noon walk on the terrace").focus();
    await page.keyboard.press("ArrowRight");
    await expect(bar(page, "Noon walk on the terrace")).toHaveAttribute("aria-valuetext", /12:55/);
    await expect(async () => {
      const after = await calendar();
      expect(after.map(({ event }) => event.uid).sort()).toEqual(before.map(({ event }) => event.uid).sort());
      const moved = after.find(({ event }) => event.uid === noon?.event.uid);
      expect(moved?.event.startDate.toJSDate().toISOString()).toBe("2031-09-20T13:55:00.000Z");
    }).toPass();
    const table = await page.request.get(`${page.url().replace("/shoot/", "/api/shoots/")}/plan?format=csv`);
    expect(await table.text()).toContain(`"swap","2031-09-20T07:45:00-01:00","2031-09-20T12:55:00-01:00"`);
    const json = await (
      await page.request.get(`${page.url().replace("/shoot/", "/api/shoots/")}/plan?format=json`)
    ).json();
    expect(json.shots).toHaveLength(7);
    // The page asks camera by camera; what it puts together is what the server plans at once.
    const rows = plan(page).locator("> *");
    await expect(rows).toHaveCount(7);
    for (const [i, { name, words }] of json.shots.entries()) {
      await expect(rows.nth(i)).toContainText(name);
      await expect(rows.nth(i)).toContainText(words);
    }
    await expect(page.getByRole("region", { name: "Swaps" }).getByRole("listitem")).toHaveText(
      json.swaps.map(({ why }: { why: string }) => `${why}.`),
    );
  });
  await test.step("the year is walked week by week", async () => {
    await page.getByRole("button", { name: "Show the year" }).click();
    const cell = page.getByTestId("year-cell");
    await expect(cell).toContainText("Week of 2031-01-01, 07:30: EV");
    const grid = page.getByRole("grid", { name: "Year" });
    await grid.focus();
    for (let i = 0; i < 24; i++) await page.keyboard.press("ArrowRight");
    await page.keyboard.press("ArrowDown");
    await expect(cell).toContainText("Week of 2031-06-18, 12:00: EV 14.");
    await expect(cell).toContainText("stops needed, ND8 + ND32");
    for (let i = 0; i < 24; i++) await page.keyboard.press("ArrowRight");
    await expect(cell).toContainText("Week of 2031-12-03");
    await expect(grid.getByRole("gridcell", { selected: true })).toBeInViewport();
    await page
      .getByRole("region", { name: "Year" })
      .getByLabel("With the camera")
      .selectOption({ label: "Terrace quad (air unit)" });
    await expect(cell).toContainText("Density 1.5");
  });
  await test.step("the sky is chosen by the hour, and a cloudy one widens the band", async () => {
    const row = plan(page).locator("> *", { hasText: "Crates down the lane" });
    await expect(row).toContainText("±0.3");
    await page.getByRole("button", { name: "10:00: clear. Press for partly cloudy" }).press("Enter");
    await expect(row).toContainText("±1.0");
    await expect(row).toContainText("Spare, should the light change");
    await expect(page.getByRole("button", { name: "14:00: partly cloudy. Press for overcast" })).toBeVisible();
    await page.getByRole("button", { name: "Ask the simulated sky service" }).click();
    await expect(page.getByText("Simulated sky taken")).toBeVisible();
  });
});
