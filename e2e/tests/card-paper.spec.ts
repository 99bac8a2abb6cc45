import { expect, test } from "../app.ts";
import { readPdf } from "../pdf.ts";

test.use({ viewport: { width: 390, height: 844 } });

for (const [button, widthMm, heightMm] of [
  ["PDF, A5", 148, 210],
  ["PDF, pocket", 105, 148],
] as const) {
  test(`the card on paper: ${button}`, async ({ page, app }) => {
    await page.goto(`${app.url}/card`);
    await page.getByRole("button", { name: /^Log/ }).click();
    const link = page.getByRole("link", { name: button });
    const file = await page.request.get(`${app.url}${await link.getAttribute("href")}`);
    expect(file.headers()["content-type"]).toBe("application/pdf");
    const printed = await readPdf(await file.body());
    expect(printed.pages).toBe(1);
    expect(printed.widthMm).toBeCloseTo(widthMm, 0);
    expect(printed.heightMm).toBeCloseTo(heightMm, 0);
    for (const part of [
      "Marl Terrace harvest",
      "Saturday 20 September 2031",
      /07:20\s+ND32 \(A3\)\s+1\/50\s+ISO \d+ to \d+/,
      "Dawn walk between the rows",
      /12:50\s+SWAP Row walker \(pocket gimbal\): ND8 \+ ND32 for ND32/,
      "Filter lost: Terrace quad",
      "full manual cannot hover",
      "WB 5600 K",
    ]) {
      if (typeof part === "string") expect(printed.text).toContain(part);
      else expect(printed.text).toMatch(part);
    }
  });
}

test("the plan as text can be copied for a message", async ({ page, app, context }) => {
  await context.grantPermissions(["clipboard-read", "clipboard-write"]);
  await page.goto(`${app.url}/card`);
  await page.getByRole("button", { name: /^Log/ }).click();
  await expect(page.getByTestId("plan-text")).toContainText("12:50 SWAP on Row walker");
  await page.getByRole("button", { name: "Plan as text" }).click();
  const copied = await page.evaluate(() => navigator.clipboard.readText());
  expect(copied).toContain("07:20-07:45 Dawn walk between the rows, Row walker (pocket gimbal): ND32 (A3); 1/50");
});
