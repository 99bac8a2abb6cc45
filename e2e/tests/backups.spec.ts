import { readFile } from "node:fs/promises";
import { expect, test } from "../app.ts";

test("everything goes out and comes back, as an archive and as a copy", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await test.step("everything goes out as an archive, and comes in again after a look", async () => {
    await page.getByRole("button", { name: "Backups and bin" }).click();
    const sheet = page.getByRole("dialog", { name: "Backups and bin" });
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      sheet.getByRole("link", { name: "Export everything" }).click(),
    ]);
    expect(download.suggestedFilename()).toMatch(/^pinhole-\d{4}-\d\d-\d\d\.zip$/);
    const taken = await download.path();
    await sheet.getByLabel("Archive file").setInputFiles(taken);
    const look = sheet.getByRole("group", { name: "Import" });
    await expect(look).toContainText(/brings 0 new, 0 later there, 0 later here, \d+ the same/);
    await look.getByRole("button", { name: "Bring it in" }).click();
    await expect(page.getByText("Brought in", { exact: true })).toBeVisible();
    await sheet.getByLabel("Archive file").setInputFiles({ name: "x.zip", mimeType: "", buffer: Buffer.from("la la") });
    await expect(page.getByText(/an archive that pinhole export wrote/)).toBeVisible();
    await page.keyboard.press("Escape");
  });
  await test.step("a copy is made, taken away and put back, and what was there is kept", async () => {
    await page.getByRole("button", { name: "Backups and bin" }).click();
    const sheet = page.getByRole("dialog", { name: "Backups and bin" });
    const copies = sheet.getByRole("list", { name: "Copies" }).getByRole("listitem");
    await sheet.getByRole("button", { name: "Make a copy" }).click();
    // That of the day makes itself, sooner or later.
    await expect(copies.filter({ hasNotText: "by itself" })).toHaveCount(1);

    const [download] = await Promise.all([
      page.waitForEvent("download"),
      sheet.getByRole("link", { name: "Take a copy away" }).click(),
    ]);
    expect(download.suggestedFilename()).toMatch(/^pinhole-\d{4}-\d\d-\d\d\.db$/);
    const taken = await download.path();
    expect((await readFile(taken)).subarray(0, 15).toString()).toBe("SQLite format 3");

    await page.keyboard.press("Escape");
    await page.getByLabel("A new shoot").fill("A mistake");
    await page.getByRole("button", { name: "Add shoot" }).click();
    await expect(page.getByRole("heading", { name: "A mistake" })).toBeVisible();

    await page.getByRole("button", { name: "Backups and bin" }).click();
    await sheet.getByLabel("Backup file").setInputFiles(taken);
    await sheet.getByRole("button", { name: "Restore it" }).click();
    await expect(page.getByText(/What was there is kept in .*\.before-/)).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(page.getByRole("heading", { name: "A mistake" })).toHaveCount(0);

    await page.getByRole("button", { name: "Backups and bin" }).click();
    await sheet
      .getByLabel("Backup file")
      .setInputFiles({ name: "song.db", mimeType: "", buffer: Buffer.from("la la la") });
    await sheet.getByRole("button", { name: "Restore it" }).click();
    await expect(page.getByText(/no sound data file.*nothing was changed/)).toBeVisible();
  });
});

test("what was deleted is seen in the bin, comes back, and goes for good", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  for (const name of ["Lantern supper", "Pond from above"]) {
    await page.getByRole("button", { name: `Delete ${name}` }).click();
    await expect(page.getByRole("button", { name: `Delete ${name}` })).toHaveCount(0);
    // The offer to undo would lie over what is pressed later.
    await page.getByRole("button", { name: "Dismiss notification" }).click();
    await expect(page.getByRole("button", { name: "Dismiss notification" })).toHaveCount(0);
  }
  await page.getByRole("button", { name: "Backups and bin" }).click();
  const sheet = page.getByRole("dialog", { name: "Backups and bin" });
  const bin = sheet.getByRole("list", { name: "Bin" }).getByRole("listitem");
  await expect(bin).toHaveText([/^Pond from above/, /^Lantern supper/]);
  await bin.filter({ hasText: "Lantern supper" }).getByRole("button", { name: "Bring back" }).click();
  await expect(bin).toHaveCount(1);
  await sheet.getByRole("button", { name: "Empty the bin" }).click();
  await sheet.getByRole("button", { name: "Remove for good" }).click();
  await expect(sheet.getByText("Nothing was deleted.")).toBeVisible();
  // Of the field log what is old goes too.
  const log = sheet.getByTestId("field-log-size");
  await expect(log).toContainText("Nothing was done in the field.");
  const { items: shoots } = await (await page.request.get(`${app.url}/api/shoots`)).json();
  const entry = { kind: "note", at: "2031-09-20T09:12:00-01:00", words: "seen" };
  for (let n = 0; n < 3; n++)
    await page.request.put(`${app.url}/api/shoots/${shoots[0].id}/log/device-entry-${n}`, { data: entry });
  await page.keyboard.press("Escape");
  await page.getByRole("button", { name: "Backups and bin" }).click();
  await expect(log).toContainText("3 entries since");
  await log.getByRole("button", { name: "30 days" }).click();
  await log.getByRole("button", { name: "Remove for good" }).click();
  await expect(log).toContainText("3 entries since"); // none of them is so old
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Delete Lantern supper" })).toBeVisible();
});
