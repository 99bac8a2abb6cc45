import { readFile, rm, writeFile } from "node:fs/promises";
import { expect, test } from "../app.ts";

test("a messy table is looked at, its good rows are added, and the kit goes out again", async ({ page, app }) => {
  await page.goto(`${app.url}/kit`);
  await page.getByRole("button", { name: "Import a kit" }).click();
  const form = page.getByRole("group", { name: "Import a kit" });
  await form
    .getByRole("textbox")
    .fill(
      [
        "label,cameras,slot,grams",
        "ND4,Row walker (pocket gimbal),A9,1.2",
        "ND16,Row walker (pocket gimbal),=1+1,heavy",
        "darkish,Row walker (pocket gimbal),A8,",
        "ND2,Nobody's camera,A7,",
        "ND1000,Pond drone (camera drone),=2+2,1.3",
      ].join("\n"),
    );
  const preview = page.getByTestId("import-preview");
  await expect(preview).toContainText("2 to add");
  await expect(preview).toContainText("3 rows cannot be read and are left out");
  await expect(preview).toContainText('line 3: grams "heavy"');
  await expect(preview).toContainText('line 4: label "darkish"');
  await expect(preview).toContainText('line 5: cameras "Nobody\'s camera"');
  await expect(
    page.getByRole("region", { name: "Filters" }).getByRole("cell", { name: "ND1000", exact: true }),
  ).toHaveCount(0);
  await preview.getByRole("button", { name: "Add 2 filters" }).click();
  await expect(
    page.getByRole("region", { name: "Filters" }).getByRole("cell", { name: "ND1000", exact: true }),
  ).toBeVisible();

  const [download] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("link", { name: "Export as CSV" }).click(),
  ]);
  const file = await readFile(await download.path(), "utf8");
  expect(file).toContain(`"Pond drone (camera drone)","'=2+2"`);
  // The same file brings nothing new.
  await page.getByRole("button", { name: "Import a kit" }).click();
  await form.getByRole("textbox").fill(file);
  await expect(preview).toContainText("0 to add, 24 in the kit already");
});

test("a kit is one line of labels", async ({ page, app }) => {
  await page.goto(`${app.url}/kit`);
  await page.getByLabel("Label on the ring").fill("2 128 256/PL VND 3-7");
  await expect(page.getByTestId("labels-read")).toHaveText("4 filters: ND2, ND128, ND256/PL, VND 3-7 stop");
  await page.getByRole("button", { name: "Add 4 filters" }).click();
  const filters = page.getByRole("region", { name: "Filters" });
  for (const label of ["ND2", "ND128", "ND256/PL", "VND 3-7 stop"])
    await expect(filters.getByRole("cell", { name: label, exact: true })).toBeVisible();
  await expect(page.getByLabel("Label on the ring")).toHaveValue("");
});

test("what is no kit is refused with a reason", async ({ page, app }, info) => {
  await page.goto(`${app.url}/kit`);
  await page.getByRole("button", { name: "Import a kit" }).click();
  const form = page.getByRole("group", { name: "Import a kit" });
  await form.getByRole("textbox").fill('label\n"ND8');
  await expect(form.getByRole("alert")).toContainText("Nothing was imported.");
  await expect(form.getByRole("alert")).toContainText("a table of cells between commas, semicolons or tabs");
  // A table of twenty megabytes is no kit either.
  const huge = info.outputPath("huge.csv");
  await writeFile(huge, `label\n${"ND8\n".repeat(5_000_000)}`);
  await form.getByLabel("A kit file").setInputFiles(huge);
  await rm(huge);
  await expect(form.getByText("huge.csv has 20.0 MB: a kit takes 900 kB at most.")).toBeVisible();
});
