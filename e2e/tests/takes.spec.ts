import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import { expect, test, visit } from "../app.ts";

/** Clips whose truth is how they were made. */
const clip = (name: string) => `../core/take/testdata/${name}`;

const choose = (page: Page, ...files: Parameters<ReturnType<Page["locator"]>["setInputFiles"]>) =>
  page.getByLabel("A clip", { exact: true }).setInputFiles(...files);

test("real clips are read, and what cannot be is said", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/take`);
  await test.step("lamps and an automatic that pumps are read from real clips", async () => {
    await choose(page, clip("lamp.mp4"));
    const says = page.getByTestId("take-says");
    await expect(says).toContainText("beats at 10.0 Hz, 1.6 bands", { timeout: 45_000 });
    await expect(says).toContainText("cannot tell: the light flickers"); // the shutter
    await choose(page, clip("pumping.webm"));
    await expect(says).toContainText("+0.7 stops of its own", { timeout: 45_000 });
    await expect(says).toContainText("at least"); // compression hides the rest of the shutter
    await expect(page.getByTestId("take-traces").getByRole("img").first()).toHaveAttribute("aria-label", /^Exposure/);
  });
  await test.step("what cannot be decoded is said by its codec, and a measurement can be cancelled", async () => {
    await choose(page, clip("hevc.mp4"));
    await expect(page.getByRole("alert")).toContainText(/cannot decode hevc.*ffmpeg/);
    const half = (await readFile(clip("lamp.mp4"))).subarray(0, 20_000);
    await choose(page, { name: "half.mp4", mimeType: "video/mp4", buffer: half });
    await expect(page.getByRole("alert")).not.toContainText("hevc");
    await choose(page, { name: "words.mp4", mimeType: "video/mp4", buffer: Buffer.from("f2 1/1250 iso50") });
    await expect(page.getByRole("alert")).toContainText("This is no clip that is known");
    await page.getByLabel("From, s").fill("9999");
    await choose(page, clip("lamp.mp4"));
    await expect(page.getByRole("alert")).toContainText(/From 9999 s on there are \d frames.*8 are needed/);
    await page.getByLabel("From, s").fill("0");
    // A long one, so that it is not measured before it is cancelled.
    await page.getByLabel("For").selectOption({ label: "spread over all" });
    await choose(page, clip("long.mp4"));
    await expect(page.getByText("long.mp4")).toBeVisible();
    await expect(page.getByText(/\d frames decoded/)).toBeVisible();
    await page.getByRole("button", { name: "Cancel" }).click();
    await expect(page.getByText("Cancelled.")).toBeVisible();
    await choose(page, clip("av1.mp4"));
    await expect(page.getByTestId("take-says")).toContainText("14 frames", { timeout: 45_000 });
    await expect(page.getByTestId("take-says")).toContainText("repeated: 7");
  });
});

test("a clip of a shot stands beside what was meant", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/take`);
  await page.getByLabel("A take of").selectOption({ label: "Dawn walk between the rows" });
  await choose(page, clip("hand-crisp.mp4"));
  const beside = page.getByTestId("take-beside");
  await expect(beside).toContainText(/The shutter was 1\/\d{3}, not 1\/50/, { timeout: 45_000 });
  await expect(beside).toContainText("The exposure stood still.");
  await expect(page.getByTestId("take-says")).toContainText("meant: 180°");
  await page.getByRole("button", { name: "Usable" }).click();
  await expect(page.getByText("Saved as the outcome of Dawn walk between the rows")).toBeVisible();
  // Beside it what was foreseen, in step.
  await expect(page.getByTestId("foreseen").getByRole("img")).toHaveAttribute("aria-label", /Look at/);
  // A second clip, in step with it, by keys; and judged without knowing which is which.
  await page.getByLabel("Another clip beside it", { exact: true }).setInputFiles(clip("pumping.webm"));
  const player = page.getByTestId("take-player");
  await player.getByRole("group", { name: /Two clips in step/ }).press("ArrowRight");
  await expect(player).toContainText("frame 1,");
  await player.getByRole("group", { name: /Two clips in step/ }).press("Shift+ArrowRight");
  await expect(player).toContainText("frame 11,");
  for (const name of ["hand-crisp.mp4", "pumping.webm"])
    await expect
      .poll(() => player.getByLabel(name).evaluate((v) => (v as HTMLVideoElement).currentTime))
      .toBeCloseTo(0.46, 2);
  await player.getByRole("button", { name: "Wipe" }).click();
  await player.getByRole("button", { name: "Difference" }).click();
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    player.getByRole("button", { name: "This frame as PNG" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("frame 11 1.png");
  await page.getByRole("button", { name: "Judge blind" }).click();
  await expect(player).not.toContainText("hand-crisp.mp4");
  await page.getByRole("button", { name: "No difference" }).click();
  await expect(page.getByText("Your answer stands in the log.")).toBeVisible();
  await visit(page, app, "/log?view=cards");
  await expect(page.getByText(/usable, hand-crisp.mp4; the shutter was 1\/\d{3}, not 1\/50/)).toBeVisible();
  await expect(page.getByText("Judged blind: hand-crisp.mp4 and pumping.webm alike")).toBeVisible();
});

test("the simulated camera records a clip of a shot, which is measured as it was made", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/take`);
  await page.getByLabel("A take of").selectOption({ label: "Lantern supper" });
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Download a simulated clip of it" }).click(),
  ]);
  expect(download.suggestedFilename()).toBe("simulated-Lantern supper.y4m");
  await choose(page, {
    name: download.suggestedFilename(),
    mimeType: "application/octet-stream",
    buffer: await readFile(await download.path()),
  });
  await expect(page.getByTestId("take-beside")).toContainText("The shutter was 1/50, as meant.", { timeout: 45_000 });
});

test("a turned clip of an uneven clock is measured, with the subtitles inside it, and aligned with another", async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/measure/take`);
  await choose(page, clip("turned.mp4"));
  const says = page.getByTestId("take-says");
  await expect(says.first()).toContainText("the clock jumps before", { timeout: 45_000 });
  await expect(page.getByTestId("clip-subtitles")).toContainText("Its subtitles say 1/400 to 1/250");
  // The traces lead through the clip.
  const box = await page.getByTestId("take-traces").boundingBox();
  if (!box) throw new Error("no traces");
  await page.mouse.click(box.x + box.width / 2, box.y + 40);
  await expect(page.getByTestId("take-player")).not.toContainText("frame 0,");
  await page.getByLabel("Another clip beside it", { exact: true }).setInputFiles(clip("hand-crisp.mp4"));
  await page.getByRole("button", { name: "Align by movement" }).click({ timeout: 45_000 });
  await expect(page.getByTestId("take-darker")).toContainText(
    /The second is \d\.\d\d ±\d\.\d\d stops (darker|brighter)/,
  );
  await page.getByRole("button", { name: "Read them as telemetry" }).click();
  await expect(page.getByTestId("telemetry-says")).toContainText("Shutter 1/400 to 1/250");
});

test("a clip of ten minutes is measured in windows spread over it", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/take`);
  await page.getByLabel("For").selectOption({ label: "spread over all" });
  await choose(page, clip("long.mp4"));
  await expect(page.getByText(/of 8 windows measured/)).toBeVisible({ timeout: 45_000 });
  await expect(page.getByRole("status", { name: "Measuring" })).toHaveCount(0, { timeout: 80_000 });
  await expect(page.getByTestId("take-says")).toContainText("the clock jumps before");
});
