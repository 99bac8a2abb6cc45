import type { Page } from "@playwright/test";
import { expect, test } from "../app.ts";

interface Dropped {
  name: string;
  text: string;
}

/** Drops files somewhere on the page, as a hand does. */
async function drop(page: Page, ...files: Dropped[]): Promise<void> {
  const data = await page.evaluateHandle((all) => {
    const transfer = new DataTransfer();
    for (const { name, text } of all) transfer.items.add(new File([text], name));
    return transfer;
  }, files);
  await page.dispatchEvent("main", "dragenter", { dataTransfer: data });
  await expect(page.getByText("you see what it is before anything is stored")).toBeVisible();
  await page.dispatchEvent("main", "drop", { dataTransfer: data });
}

/** Pastes a text where no field is. */
async function paste(page: Page, text: string): Promise<void> {
  await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
  await page.evaluate((said) => {
    const data = new DataTransfer();
    data.setData("text/plain", said);
    document.body.dispatchEvent(new ClipboardEvent("paste", { clipboardData: data, bubbles: true }));
  }, text);
}

test("a table and a line are pasted where no field is", async ({ page, app }) => {
  await test.step("a table is pasted from a spreadsheet with tabs and decimal commas, and taken back in one step", async () => {
    await page.goto(`${app.url}/shoot`);
    await paste(page, "\uFEFFlabel\tgrams\tmeasured stops\tbought\r\nND2\t1,4\t1,05\t2029\r\nND1000\t2,25\t9,8\t\r\n");
    const sheet = page.getByRole("dialog", { name: "What came in" });
    await expect(sheet).toContainText("A table of filters, or a kit");
    await sheet.getByRole("button", { name: "Look at it in Kit" }).click();
    const preview = page.getByTestId("import-preview");
    await expect(preview).toContainText("2 to add");
    await expect(preview).toContainText("Columns left out, as they say nothing of a filter: bought");
    await preview.getByRole("button", { name: "Add 2 filters" }).click();
    const filters = page.getByRole("region", { name: "Filters" });
    const added = filters.getByRole("row").filter({ hasText: "ND1000" });
    await expect(added).toContainText("9.80");
    await page.keyboard.press("Control+z");
    await expect(page.getByText("Undone: Import 2 filters")).toBeVisible();
    await expect(added).toHaveCount(0);
  });
  await test.step("a line is pasted anywhere and answered", async () => {
    await paste(page, "EV 14 > 1/100");
    await page.getByRole("dialog", { name: "What came in" }).getByRole("button", { name: "Answer it" }).click();
    await expect(page.getByTestId("quick-answer")).toBeVisible();
    await expect(page.getByTestId("quick-answer")).toContainText("stops");
  });
});

test("files are dropped anywhere, several at once, and each says what it is", async ({ page, app }) => {
  await page.goto(`${app.url}/card`);
  const gpx = `<?xml version="1.0"?><gpx version="1.1"><trk><trkseg>${[0, 1, 2]
    .map((i) => `<trkpt lat="40.00${i}" lon="-21.5"><time>2031-09-20T10:0${i}:00Z</time></trkpt>`)
    .join("")}</trkseg></trk></gpx>`;
  await drop(
    page,
    { name: "kit.csv", text: "label;slot\nND2;A9\n" },
    { name: "way.gpx", text: gpx },
    { name: "flight.srt", text: "1\n00:00:00,000 --> 00:00:01,000\n[iso: 100] [shutter: 1/500.0]\n" },
    { name: "mystery.bin", text: "\0\x01\x02" },
  );
  const sheet = page.getByRole("dialog", { name: "What came in" });
  await expect(sheet.getByRole("listitem")).toHaveCount(4);
  await expect(sheet.getByRole("listitem").filter({ hasText: "mystery.bin" })).toContainText("Not recognised.");
  await expect(sheet.getByRole("listitem").filter({ hasText: "flight.srt" })).toContainText("A log of the exposure");
  await sheet
    .getByRole("button", { name: /^Place of / })
    .first()
    .click();
  await expect(page.getByTestId("track")).toContainText("3 points");
  await expect(page.getByLabel("Latitude, ° north")).toHaveValue("40.001");
});

test.describe("installed", () => {
  test.use({ serviceWorkers: "allow" });

  test("what another application shares is taken by the page, and goes nowhere else", async ({ page, app }) => {
    await page.goto(`${app.url}/kit`);
    await page.evaluate(() => navigator.serviceWorker.ready);
    await page.reload(); // from now on the worker answers
    await expect(page.getByRole("navigation", { name: "Places" })).toBeVisible();
    const where = await page.evaluate(async () => {
      const form = new FormData();
      form.append("files", new File(["label;slot\nND2;A9\n"], "from a mail.csv"));
      return (await fetch("/share", { method: "POST", body: form })).url;
    });
    expect(where).toBe(`${app.url}/measure`);
    await page.goto(where);
    const sheet = page.getByRole("dialog", { name: "What came in" });
    await expect(sheet).toContainText("from a mail.csv");
    await sheet.getByRole("button", { name: "Look at it in Kit" }).click();
    await expect(page.getByTestId("import-preview")).toContainText("1 to add");
    await page.reload();
    await expect(page.getByRole("dialog")).toHaveCount(0);
  });
});
