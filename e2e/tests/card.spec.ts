import type { Page } from "@playwright/test";
import { type App, expect, test, visit } from "../app.ts";

// A phone, held in one hand.
test.use({ viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });

/** Opens the card by the bar of places; off its day it is shown shortly before its first turn. */
async function openCard(page: Page, app: App): Promise<void> {
  await page.goto(`${app.url}/shoot`);
  await page.getByRole("link", { name: "Field card", exact: true }).tap();
  await expect(page.getByTestId("turn")).toContainText("Dawn walk between the rows");
}

const figure = (page: Page, name: string) => page.getByTestId(`figure-${name}`);

test("for each shot of the demo, what to set is answered in three touches", async ({ page, app }) => {
  const shots = [
    {
      camera: "Row walker",
      later: 0,
      name: "Dawn walk between the rows",
      glass: "ND32",
      shutter: "1/50",
      iso: /^\d+–\d+$/,
    },
    {
      camera: "Row walker",
      later: 1,
      name: "Noon walk on the terrace",
      glass: "ND8 + ND32",
      shutter: "1/50",
      iso: /^\d+$/,
    },
    { camera: "Crate trailer", later: 0, name: "Crates down the lane", glass: "ND8", shutter: "1/100", iso: /^100$/ },
    {
      camera: "Terrace quad",
      later: 0,
      name: "Dive down the terraces",
      glass: "Density 1.5",
      shutter: "1/240–1/120",
      iso: /^100$/,
    },
    { camera: "Pond drone", later: 0, name: "Pond from above", glass: "ND32/PL", shutter: "1/50", iso: /^\d+$/ },
    { camera: "Cellar phone", later: 0, name: "Press cellar", glass: "VND 1-6", shutter: "1s", iso: /^50$/ },
  ];
  for (const shot of shots) {
    await visit(page, app, "/shoot");
    await expect(page.getByRole("link", { name: "Plan the day" })).toBeVisible();
    await page.getByRole("link", { name: "Field card", exact: true }).tap(); // one
    await page.getByRole("button", { name: shot.camera }).tap(); // two
    if (shot.later) await page.getByRole("button", { name: "The take after" }).tap(); // three
    const turn = page.getByTestId("turn");
    await expect(turn).toContainText(shot.name);
    await expect(figure(page, "Filter")).toHaveText(shot.glass);
    await expect(figure(page, "Shutter")).toHaveText(shot.shutter);
    await expect(figure(page, "ISO")).toHaveText(shot.iso);
    await expect(turn).toContainText(/\d fps|a still each 2 s/);
    await expect(page.getByRole("region", { name: "Set as well" })).toContainText("White balance: 5600 K");
    for (const name of ["Filter", "Shutter", "ISO"]) {
      expect((await figure(page, name).boundingBox())?.height, `${name} of ${shot.name}`).toBeGreaterThanOrEqual(40);
    }
  }
  // Turned, as beside a camera on its gimbal, the bar leaves room for all that is set.
  await visit(page, app, "/card"); // the widest figures: an ISO that floats
  await expect(figure(page, "ISO")).toHaveText("200–250");
  for (const [width, height] of [
    [844, 390],
    [667, 375],
  ] as const) {
    await page.setViewportSize({ width, height });
    await expect
      .poll(async () => {
        const bar = await page.getByRole("region", { name: "Do", exact: true }).boundingBox();
        const iso = await figure(page, "ISO").boundingBox();
        return bar && iso && bar.y - (iso.y + iso.height);
      }, `${width} wide`)
      .toBeGreaterThan(0);
  }
});

test("time passes on the card, and its address may say any time", async ({ page, app }) => {
  await test.step("time passes on the card: a turn is on, then over", async () => {
    await openCard(page, app);
    await page.getByRole("button", { name: "15 minutes later" }).tap();
    await expect(page.getByTestId("turn")).toContainText("On, ends in 20 min");
    for (let i = 0; i < 2; i += 1) await page.getByRole("button", { name: "15 minutes later" }).tap();
    // Nobody chose a camera: the one that comes next is shown.
    await expect(page.getByTestId("turn")).toContainText("Crates down the lane");
    await page.getByRole("button", { name: "Row walker" }).tap();
    await expect(page.getByTestId("turn")).toContainText("Noon walk on the terrace");
    await expect(page.getByTestId("turn")).toContainText("Next, in 4 h 55 min");
  });
  await test.step("silly addresses are answered in words", async () => {
    await page.goto(`${app.url}/card/nowhere`);
    await expect(page.getByText("This shoot is not there any more.")).toBeVisible();
    await openCard(page, app);
    await page.goto(`${page.url().replace(/\?.*/, "")}?at=yesterday`);
    await expect(page.getByTestId("turn")).toContainText("Dawn walk");
  });
});

test("a light that fell is read, changed for and pinned in three touches", async ({ page, app }) => {
  await openCard(page, app);
  await page.goto(`${page.url().replace(/\?.*/, "")}?at=2031-09-20T12:45:00-01:00`);
  await page.getByRole("button", { name: "Row walker" }).tap();
  await expect(page.getByTestId("turn")).toContainText("Noon walk on the terrace");
  await page.getByRole("button", { name: "Re-meter" }).tap(); // one
  await expect(page.getByTestId("expected")).toContainText("Forecast: bias");
  await page.getByRole("button", { name: "−3", exact: true }).tap(); // two
  const result = page.getByTestId("remetered");
  await expect(result).toContainText("Change to");
  await expect(result).toContainText("stops from the forecast EV");
  await page.getByRole("button", { name: "Correct the forecast" }).tap(); // three
  await expect(page.getByText("Forecast corrected")).toBeVisible();
  // The plan of the day has the pin, and the glass of the noon walk is another.
  await expect(page.getByTestId("turn")).toContainText("Noon walk on the terrace");
  await expect(figure(page, "Filter")).toHaveText("ND32");
  await page.goto(page.url().replace("/card/", "/shoot/").replace(/\?.*/, ""));
  await expect(page.getByRole("region", { name: "Light" })).toContainText("bias -3 behind ND8 + ND32");
});

test("light is read on the card, and a dark passage planned in it", async ({ page, app }) => {
  await openCard(page, app);
  await test.step("the ways of reading: automatic, meter and looking, and what cannot be read", async () => {
    await page.getByRole("button", { name: "Re-meter" }).tap();
    await page.getByRole("button", { name: "Auto exposure", exact: true }).tap();
    await page.getByLabel("or as it shows").fill("1/200");
    await expect(page.getByTestId("remetered")).toContainText("ND32:");
    await page.getByRole("button", { name: "Light meter", exact: true }).tap();
    await page.getByLabel(/EV 14.3, as it shows/).fill("silly");
    await expect(page.getByRole("alert")).toContainText("silly");
    await expect(page.getByTestId("remetered")).toHaveCount(0);
    await page.getByRole("button", { name: "as forecast" }).tap();
    await expect(page.getByTestId("remetered")).toContainText(/as forecast|within its/);
    await page.getByRole("button", { name: "By eye", exact: true }).tap();
    await page.getByRole("button", { name: "Too bright" }).tap();
    await expect(page.getByTestId("remetered")).toContainText("look through this next");
    // Without a meter the sky is light too: what to put on, what to have in the pocket, and no pin.
    await page.getByRole("button", { name: "Sky", exact: true }).tap();
    await expect(page.getByTestId("remetered")).toHaveCount(0);
    await page.getByRole("button", { name: "clouds with gaps" }).tap();
    await expect(page.getByTestId("pocket")).toContainText(/if it is (brighter|darker)/);
    await expect(page.getByText(/^The forecast \(±/)).toBeVisible();
    await expect(page.getByRole("button", { name: /^Pin it/ })).toHaveCount(0);
  });
  await test.step("a dark passage says what the lock does and what to choose", async () => {
    await page.getByRole("button", { name: "Close" }).tap();
    await page.getByRole("button", { name: "Crate trailer" }).tap();
    await page.getByRole("button", { name: "Tunnel or shade" }).tap();
    const passage = page.getByTestId("passage");
    await expect(passage).toContainText("Never take a filter off or change it while moving");
    await expect(passage).toContainText("Auto ISO 100–");
    await page.getByRole("button", { name: "Unlit" }).tap();
    await expect(passage).toContainText("Two takes");
    await page.getByLabel("or in seconds").fill("0");
    await expect(page.getByRole("alert")).toContainText("a number from 0.1 to 36000");
    // It is planned in the light of the take, not in that of the hour it is planned at.
    await page.getByRole("button", { name: "Close" }).tap();
    await page.getByRole("button", { name: "Row walker" }).tap();
    await page.getByRole("button", { name: "The take after" }).tap();
    await page.getByRole("button", { name: "Tunnel or shade" }).tap();
    await expect(passage).toContainText("Inside EV 10.9");
  });
});

test("a craft's checks are passed or reasoned, and its drills are at hand", async ({ page, app }) => {
  await openCard(page, app);
  await test.step("a required check is said, is not ticked away, and is passed by a reason that is logged", async () => {
    await page.getByRole("button", { name: "Terrace quad" }).tap();
    await expect(page.getByTestId("stops")).toContainText("Not ready: 4 required checks");
    await page.getByTestId("stops").tap();
    const readiness = page.getByTestId("readiness");
    await expect(readiness).toContainText("not ready: 4 required checks");
    for (const step of [/^Disarm/, /^Density 1.5/, /^Pull test/])
      await page.getByRole("checkbox", { name: step }).tap();
    await expect(readiness).toContainText("not ready: 1 required check");
    await page.getByRole("button", { name: "Go on without it…" }).tap();
    await expect(page.getByRole("button", { name: "Log it and go on" })).toBeDisabled();
    await page.getByLabel("The reason").fill("taped all round by two of us");
    await page.getByRole("button", { name: "Log it and go on" }).tap();
    await expect(readiness).toContainText("no required check is open");
    await expect(page.getByRole("checkbox", { name: /^Tether it/ })).toContainText("gone on without it at");
    await page.getByRole("button", { name: "Close" }).tap();
    await page.getByRole("button", { name: /^Log/ }).tap();
    await expect(page.getByTestId("log")).toContainText("taped all round by two of us");
  });
  await test.step("drills are one touch away, for this craft, and defer to local rules", async () => {
    await page.getByRole("button", { name: "Close" }).tap();
    await page.getByRole("button", { name: "Goes wrong" }).tap();
    const drill = page.getByTestId("drill");
    await expect(drill.getByRole("listitem")).toHaveCount(5);
    await expect(drill).toContainText("full manual cannot hover");
    await expect(drill).toContainText("6.3 stops over: set 1/8000, still 0.3 over");
    await expect(drill).toContainText("Local rules");
    await page.getByRole("button", { name: "Fogging" }).tap();
    await expect(page.getByRole("heading", { name: "Fogging" })).toBeVisible();
    await page.getByRole("button", { name: "Close" }).tap();
    await page.getByRole("button", { name: "Pond drone" }).tap();
    await page.getByRole("button", { name: "Filter lost" }).tap();
    await expect(drill).toContainText("Release the sticks");
  });
});

test("the card is held in one hand: what is done is near the thumb, and turns are looked ahead to", async ({
  page,
  app,
}) => {
  await openCard(page, app);
  await test.step("what is done is in the reach of the thumb", async () => {
    const camera = await page.getByRole("button", { name: "Row walker" }).boundingBox();
    expect(camera?.y, "the cameras").toBeGreaterThan(844 / 2);
    for (const name of ["Re-meter", "Checks 0/11", "Goes wrong", "Log", "The take after"]) {
      const box = await page.getByRole("button", { name, exact: true }).boundingBox();
      expect(box?.y, name).toBeGreaterThan(844 / 2);
      expect(box?.height, name).toBeGreaterThanOrEqual(44);
      expect(box?.width, name).toBeGreaterThanOrEqual(44);
    }
    const small = await page.evaluate(() =>
      [...document.querySelectorAll("main button")]
        .filter((b) => b.getBoundingClientRect().height < 43.5)
        .map((b) => b.textContent),
    );
    expect(small, "buttons too small for a thumb").toEqual([]);
  });
  await test.step("the lantern supper is two turns after dawn, and the swap to it is announced", async () => {
    await expect(page.getByTestId("swap")).toContainText("in 5 h 40 min");
    await expect(page.getByTestId("swap")).toContainText("ND8 + ND32 in place of ND32");
    await page.getByRole("button", { name: "The take after" }).tap();
    await page.getByRole("button", { name: "The take after" }).tap();
    await expect(page.getByTestId("turn")).toContainText("Lantern supper");
    await expect(figure(page, "Filter")).toHaveText("No filter");
  });
});
