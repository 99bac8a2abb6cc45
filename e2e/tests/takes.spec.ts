import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import { expect, test } from "../app.ts";

/** Clips whose truth is how they were made. */
const clip = (name: string) => `../core/take/testdata/${name}`;

const choose = (page: Page, ...files: Parameters<ReturnType<Page["locator"]>["setInputFiles"]>) =>
  page.getByLabel("A clip", { exact: true }).setInputFiles(...files);

test("lamps and an automatic that pumps are read from real clips", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/take`);
  await choose(page, clip("lamp.mp4"));
  const says = page.getByTestId("take-says");
  await expect(says).toContainText("beats at 10.0 Hz, 1.6 bands", { timeout: 45_000 });
  await expect(says).toContainText("cannot tell: the light flickers"); // the shutter
  await choose(page, clip("pumping.webm"));
  await expect(says).toContainText("+0.7 stops of its own", { timeout: 45_000 });
  await expect(says).toContainText("at least"); // compression hides the rest of the shutter
  await expect(page.getByTestId("take-traces").getByRole("img").first()).toHaveAttribute("aria-label", /^Exposure/);
});

test("a clip of a shot stands beside what was meant", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/take`);
  await page.getByLabel("A take of").selectOption({ label: "Dawn walk between the rows" });
  await choose(page, clip("hand-crisp.mp4"));
  const beside = page.getByTestId("take-beside");
  await expect(beside).toContainText(/The shutter was 1\/\d{3}, not 1\/50/, { timeout: 45_000 });
  await expect(beside).toContainText("The exposure stood still.");
  await expect(page.getByTestId("take-says")).toContainText("meant: 180°");
});

test("what cannot be decoded is said by its codec, and a measurement can be cancelled", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/take`);
  await choose(page, clip("hevc.mp4"));
  await expect(page.getByRole("alert")).toContainText(/cannot decode hevc.*ffmpeg/);
  const half = (await readFile(clip("lamp.mp4"))).subarray(0, 20_000);
  await choose(page, { name: "half.mp4", mimeType: "video/mp4", buffer: half });
  await expect(page.getByRole("alert")).not.toContainText("hevc");
  await choose(page, { name: "words.mp4", mimeType: "video/mp4", buffer: Buffer.from("f2 1/1250 iso50") });
  await expect(page.getByRole("alert")).toBeVisible();
  await choose(page, clip("hand-crisp.mp4"));
  await page.getByRole("button", { name: "Cancel" }).click();
  await expect(page.getByText("Cancelled.")).toBeVisible();
  await choose(page, clip("av1.mp4"));
  await expect(page.getByTestId("take-says")).toContainText("14 frames", { timeout: 45_000 });
  await expect(page.getByTestId("take-says")).toContainText("repeated: 7");
});
