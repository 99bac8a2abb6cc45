import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import { expect, on, openShot, test, visit } from "../app.ts";

/** Files whose truth is how they were made. */
const sample = (name: string) => `../core/measure/testdata/${name}`;

test("frames of all formats are read, and say which filter of the kit makes them right", async ({ page, app }) => {
  await page.goto(`${app.url}/measure`);
  await test.step("a frame says what is clipped and which filter of the kit makes it so", async () => {
    await page.getByLabel("A frame", { exact: true }).setInputFiles(sample("bright.png"));
    const advice = page.getByTestId("frame-advice");
    await expect(advice).toContainText("1.2 stops darker");
    await expect(page.getByTestId("frame-reader")).toContainText("clipped: 1.5 %");
    await page.getByLabel("Filters of").selectOption({ label: "Row walker (pocket gimbal)" });
    await page.getByLabel("Filter on, stops").fill("2");
    // 2 stops on and 1.2 too bright: 3.2 are wanted; the walker's ND8 cuts 2.9 or more.
    await expect(page.getByTestId("frame-glass")).toContainText("3.2 stops wanted");
    await expect(page.getByTestId("frame-glass")).toContainText("ND8");
    await page.getByLabel("A frame", { exact: true }).setInputFiles(sample("black.png"));
    await expect(page.getByText("Nearly all of it is black")).toBeVisible();
    await page.getByLabel("A frame", { exact: true }).setInputFiles(sample("words.png"));
    await expect(page.getByRole("alert")).toContainText("a PNG of 8 or 16 bits or a JPEG, whole");
  });
  await test.step("a HEIC and an AVIF are decoded here, and a clip is not taken for one", async () => {
    for (const [file, format] of [
      ["lamp.heic", "HEIC"],
      ["lamp.avif", "AVIF"],
    ] as const) {
      await page.getByLabel("A frame", { exact: true }).setInputFiles(`../core/exif/testdata/${file}`);
      await expect(page.getByText(file), format).toBeVisible();
      await expect(page.getByTestId("frame-advice")).toContainText("480 × 320, 8 bits · 1/1045 ISO 100");
      await expect(page.getByTestId("frame-advice")).toContainText("0.5 stops darker");
      await expect(page.getByAltText("The frame that was read")).toHaveJSProperty("naturalWidth", 480);
    }
    const broken = (await readFile("../core/exif/testdata/lamp.heic")).subarray(0, 900);
    await page
      .getByLabel("A frame", { exact: true })
      .setInputFiles({ name: "torn.heic", mimeType: "image/heic", buffer: broken });
    await expect(page.getByRole("alert")).toContainText(/HEIC/);
  });
});

test("a filter's strength is measured by readings and by frames", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/filter`);
  await test.step("readings of the automatic measure too, and a bracket shows that the light moved", async () => {
    await page.getByRole("button", { name: "Readings of the automatic" }).click();
    await page.getByLabel("It chose without").fill("1/1000 iso100");
    await page.getByLabel("It chose with", { exact: true }).fill("1/70..1/55 iso100");
    await page.getByRole("button", { name: "Measure", exact: true }).click();
    await expect(page.getByTestId("filter-truth")).toContainText(/Between 3\.\d+ and 4\.\d+ stops/);
    await page.getByRole("button", { name: "Frames", exact: true }).click();
    await page.getByLabel("Frames without the filter").setInputFiles([sample("braa0.jpg"), sample("braa1.jpg")]);
    await page.getByLabel("Frames with the filter").setInputFiles(sample("brab0.jpg"));
    await page.getByLabel("Exposure without").fill("1/2500 iso100");
    await page.getByLabel("Exposure with", { exact: true }).fill("1/500 iso100");
    await page.getByRole("button", { name: "Measure", exact: true }).click();
    await expect(page.getByTestId("filter-truth")).toContainText("the light changed by 0.29 stops and is corrected");
  });
  await test.step("a pair of frames sets a filter's strength, and the shot that uses it moves; both are undone", async () => {
    await page.getByLabel("Frames without the filter").setInputFiles(sample("nd0a0.png"));
    await page.getByLabel("Frames with the filter").setInputFiles(sample("nd0b0.png"));
    await page.getByLabel("Exposure without").fill("1/4000 iso100");
    await page.getByLabel("Exposure with", { exact: true }).fill("1/500 iso100");
    await page.getByRole("button", { name: "Measure", exact: true }).click();
    const truth = page.getByTestId("filter-truth");
    await expect(truth).toContainText(/2\.7\d ±0\.0\d stops/);
    await expect(truth).toContainText("bluer");
    await expect(page.getByText("Whether the light changed meanwhile is not known")).toBeVisible();
    await truth.getByLabel("The filter").selectOption({ label: "ND16 · B2" });
    await expect(truth).toContainText("Marked 4.00 stops: −1.2 against that");
    await truth.getByRole("button", { name: "Save with it" }).click();
    await expect(page.getByText("Saved with ND16")).toBeVisible();
    await page.getByRole("link", { name: "Shoots", exact: true }).click();
    const row = page.getByRole("link", { name: "Crates down the lane" });
    await expect(row).not.toContainText("…"); // rows grow when the plan of their day is there
    await row.click();
    const tray = page.getByRole("group", { name: "Filters to put on" });
    await expect(tray.getByRole("button", { name: /ND16/ })).toContainText("2.8");
    await page.keyboard.press("Control+z");
    await expect(page.getByText("Undone: Measure ND16")).toBeVisible();
    await expect(tray.getByRole("button", { name: /ND16/ })).toContainText("4.2");
  });
});

test("what pairs tell of a filter, and a bracket of a profile", async ({ page, app }) => {
  await test.step("a crooked ring, a soft filter and a veil are told from pairs", async () => {
    const measure = async (what: string, without: string, withIt: string) => {
      await page.goto(`${app.url}/measure/${what}`);
      await page.getByLabel("Without the filter").setInputFiles(sample(without));
      await page.getByLabel("With the filter").setInputFiles(sample(withIt));
      await page.getByRole("button", { name: "Measure", exact: true }).click();
      return page.getByTestId(`${what}-result`);
    };
    await expect(await measure("corners", "flat1a.jpg", "flat1b.jpg")).toContainText("askew: bottom left is darkest");
    await expect(await measure("sharpness", "edge0a.png", "edge0b.png")).toContainText(/6\d % of sharpness lost/);
    await expect(await measure("flare", "lamp1a.jpg", "lamp1b.jpg")).toContainText("A halo about the light");
    await expect(await measure("sharpness", "upright.png", "upright.png")).toContainText("turn the target to about 5°");
  });
  await test.step("a profile's curve is found from a bracket and used for a pair", async () => {
    await visit(page, app, "/measure/curve");
    await page.getByLabel("The frames").setInputFiles([2000, 500, 125].map((n) => sample(`culog${n}.jpg`)));
    await page.getByRole("button", { name: "Measure", exact: true }).click();
    const result = page.getByTestId("curve-result");
    await expect(result).toContainText("It is not the standard");
    await result.getByLabel("Name of the profile").fill("flat");
    await result.getByRole("button", { name: "Save on this device" }).click();
    await expect(result).toContainText("flat: used where a pair says it was taken with it");
    await visit(page, app, "/measure/filter");
    await expect(page.getByLabel("Profile of the frames")).toHaveValue("");
    await page.getByLabel("Profile of the frames").selectOption("flat");
    await page.reload();
    await expect(page.getByLabel("Profile of the frames")).toBeVisible();
  });
});

test("a log of the exposure says where the automatic moved, and is kept as a reading", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/telemetry`);
  await page.getByLabel("A log").setInputFiles(sample("log-limit.csv"));
  await page.getByLabel("Shutter target").fill("1/60");
  const says = page.getByTestId("telemetry-says");
  await expect(says).toContainText("34 % of the time within half a stop of 1/60");
  await expect(says).toContainText("Auto shutter was on");
  await expect(says.getByRole("listitem")).toHaveCount(3);
  await says.getByLabel("As a reading of").selectOption({ label: "Marl Terrace harvest" });
  await says.getByRole("button", { name: "Save reading" }).click();
  await expect(page.getByText("Saved as a reading of the day")).toBeVisible();
  await visit(page, app, "/shoot");
  await page.getByRole("link", { name: "Plan the day" }).click();
  await expect(page.getByRole("region", { name: "Readings" })).toContainText("log-limit.csv");
});

test("the log of a gyro is the shake of a camera, from wherever it comes", async ({ page, app }) => {
  await test.step("a gyro's log is kept as the shake of a camera and changes what its shots are judged by", async () => {
    await page.goto(`${app.url}/measure/gyro`);
    await page.getByLabel("A gyro log").setInputFiles(sample("gyro1.csv"));
    const says = page.getByTestId("gyro-says");
    await expect(says).toContainText("18.9°/s");
    await expect(says).toContainText("107.5 Hz");
    await expect(says).toContainText("1/50 leaves 7 %");
    await expect(page.getByTestId("spectrum").getByRole("img")).toHaveAttribute("aria-label", /9\.2 Hz/);
    await says
      .getByLabel("The camera, as it was held")
      .selectOption({ label: "Crate trailer (action camera), in its frame" });
    await expect(page.getByTestId("gyro-limit")).toContainText(/Stabiliser limit 1\/\d+/);
    await says.getByRole("button", { name: "Save as its shake" }).click();
    await expect(page.getByText("Saved with in its frame")).toBeVisible();
    await says.getByLabel("What it did").selectOption({ label: "Brisk walk" });
    await says.getByRole("button", { name: "Save as its shake" }).click();
    await expect(says).toContainText("Brisk walk: 18.9°/s as measured");
    await says.getByRole("button", { name: "Save 108 Hz as its vibration" }).click();
    await expect(says).toContainText("Vibration 108 Hz");
    await page.getByLabel("Motor, turns a minute").fill("6450");
    await expect(says).toContainText("107.5 Hz (the motor turning: out of balance)");
    await visit(page, app, "/kit");
    await page.getByRole("button", { name: "Rig in its frame of Crate trailer (action camera)" }).click();
    await expect(page.getByLabel("Its shake, °/s")).toHaveValue("18.9");
  });
  await test.step("a walk that shakes more than is assumed turns the verdict of its shots", async () => {
    await openShot(page, app, "Dawn walk between the rows");
    await expect(on(page).state).toContainText("holds");
    const rows = Array.from({ length: 4000 }, (_, i) => `${i * 5},${i < 400 ? 0 : 230 * Math.sin(i / 4)},0.1,0`);
    await visit(page, app, "/measure/gyro");
    await page.getByLabel("A gyro log").setInputFiles({
      name: "rough walk.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(["time (ms),x (deg/s),y (deg/s),z (deg/s)", ...rows].join("\n")),
    });
    const says = page.getByTestId("gyro-says");
    await says
      .getByLabel("The camera, as it was held")
      .selectOption({ label: "Row walker (pocket gimbal), in the hand" });
    await says.getByLabel("What it did").selectOption({ label: "Walk" });
    await says.getByRole("button", { name: "Save as its shake" }).click();
    await expect(says).toContainText("Walk: 22");
    await openShot(page, app, "Dawn walk between the rows");
    await expect(on(page).state).toContainText("stabiliser limit breaks");
  });
  await test.step("pictures and logs are read wherever they are dropped", async () => {
    await visit(page, app, "/kit");
    const data = await page.evaluateHandle(() => {
      const transfer = new DataTransfer();
      const lines = ["time (ms),x (deg/s),y (deg/s),z (deg/s)"];
      for (let i = 0; i < 2400; i++) lines.push(`${i * 5},${i < 300 ? 0 : (20 * Math.sin(i / 4)).toFixed(3)},0.1,0`);
      transfer.items.add(new File([lines.join("\n")], "shake.csv"));
      return transfer;
    });
    await page.dispatchEvent("main", "drop", { dataTransfer: data });
    const sheet = page.getByRole("dialog", { name: "What came in" });
    await expect(sheet).toContainText("A log of a gyro");
    await sheet.getByRole("button", { name: "Read the log" }).click();
    await expect(page).toHaveURL(/measure\/gyro/);
    await expect(page.getByTestId("gyro-says")).toContainText("8.0 Hz");
  });
});

test("a test frame on the field card says in three touches what to change", async ({ page, app }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${app.url}/card`);
  await page.getByRole("region", { name: "Do" }).getByRole("button", { name: "Re-meter" }).click(); // one
  const sheet = page.getByRole("dialog", { name: "Re-meter" });
  await sheet.getByRole("button", { name: "Photo", exact: true }).click(); // two
  await expect(sheet.getByTestId("expected")).toContainText("Shoot a frame at");
  await sheet.getByLabel("A test frame").setInputFiles(sample("bright.png")); // three
  await expect(sheet.getByTestId("frame-bias")).toContainText("1.2 stops over");
  await sheet.getByLabel("A test frame").setInputFiles(sample("black.png"));
  await expect(sheet).toContainText("Nearly all of it is black");
  // A wall that comes out all but white is 2.4 stops over: the forecast was too dark, and the card has another filter.
  await sheet.getByLabel("A test frame").setInputFiles(await paleFrame(page));
  await expect(sheet.getByTestId("frame-bias")).toContainText("2.4 stops over");
  const main = page.locator("main");
  await expect(main.getByText("ND32", { exact: true })).toBeVisible();
  await sheet.getByRole("button", { name: "Correct the forecast" }).click();
  await expect(main.getByText("ND8 + ND32", { exact: true })).toBeVisible();
});

test("what the simulated devices write is downloaded and read again, and the target is printed", async ({
  page,
  app,
}) => {
  const fetched = async (name: string) => {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("link", { name, exact: true }).click(),
    ]);
    return download.path();
  };
  await page.goto(`${app.url}/measure/telemetry`);
  await page.getByLabel("A log").setInputFiles(await fetched("Download a simulated flight"));
  await expect(page.getByTestId("telemetry-says")).toContainText("Auto shutter was on");
  await visit(page, app, "/measure/gyro");
  await page.getByLabel("A gyro log").setInputFiles(await fetched("Download a simulated walk"));
  await expect(page.getByTestId("gyro-says")).toContainText("61.0 Hz");
  await visit(page, app, "/measure/sharpness");
  expect(await readFile(await fetched("Print the target"), "latin1")).toContain("%PDF");
  // Frames of the simulated camera say how they were exposed, and are measured as the filter is known.
  await page.goto(`${app.url}/measure/filter`);
  await page.getByLabel("Through").selectOption({ label: "ND32 · A3" });
  const [without, withIt] = [await fetched("Download without"), await fetched("Download with")];
  await page.getByLabel("Frames without the filter").setInputFiles(without);
  await page.getByLabel("Frames with the filter").setInputFiles(withIt);
  await page.getByRole("button", { name: "Measure", exact: true }).click();
  await expect(page.getByTestId("filter-truth")).toContainText(/4\.8\d ±0\.0\d stops/);
});

/** A frame that is one pale grey. */
async function paleFrame(page: Page) {
  const url = await page.evaluate(() => {
    const canvas = document.createElement("canvas");
    const context = canvas.getContext("2d");
    if (!context) throw new Error("no canvas");
    context.fillStyle = "rgb(250 250 250)";
    context.fillRect(0, 0, canvas.width, canvas.height);
    return canvas.toDataURL("image/png");
  });
  return { name: "wall.png", mimeType: "image/png", buffer: Buffer.from(url.split(",")[1] ?? "", "base64") };
}
