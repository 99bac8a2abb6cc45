import { expect, PINHOLE_PASSPHRASE, test } from "../app.ts";

test.use({ lan: true, ignoreHTTPSErrors: true });

test("a telephone is let in by the passphrase, and the desk shows the code for it", async ({ page, app, context }) => {
  await page.goto(`${app.url}/shoot`);
  await page.getByRole("button", { name: "On the phone" }).click();
  await expect(page.getByText(`${app.phoneUrl}/`, { exact: true })).toBeVisible();
  await expect(page.getByRole("dialog").locator("svg path").first()).toBeVisible();

  const phone = await context.newPage();
  await phone.setViewportSize({ width: 390, height: 844 });
  await phone.goto(`${app.phoneUrl}/card`);
  await expect(phone.getByRole("heading", { name: "Your passphrase" })).toBeVisible();
  await expect(phone.getByText("Dawn walk")).toHaveCount(0);
  await phone.getByLabel("Passphrase").fill("olive");
  await phone.getByRole("button", { name: "Enter" }).click();
  await expect(phone.getByText("This is not the passphrase.")).toBeVisible();
  await phone.getByLabel("Passphrase").fill(PINHOLE_PASSPHRASE.toUpperCase());
  await phone.getByRole("button", { name: "Enter" }).click();
  await expect(phone.getByTestId("turn")).toContainText("Dawn walk between the rows");
  await phone.getByRole("button", { name: /^Checks/ }).click();
  await phone.getByRole("checkbox", { name: /^Pull test/ }).click();
  await expect(phone.getByTestId("reach")).toHaveCount(0);
  await phone.getByRole("button", { name: "Close" }).click();
  await phone.getByRole("button", { name: /^Log/ }).click();
  await expect(phone.getByTestId("log")).toContainText("done: Pull test");
  await phone.getByRole("button", { name: "Leave this device" }).click();
  await expect(phone.getByRole("heading", { name: "Your passphrase" })).toBeVisible();
  await phone.reload();
  await expect(phone.getByRole("heading", { name: "Your passphrase" })).toBeVisible();
});

test("a telephone that was lost is shut out at the desk, and keeps nothing", async ({ page, app, context }) => {
  const phone = await context.newPage();
  await phone.setViewportSize({ width: 390, height: 844 });
  await phone.goto(`${app.phoneUrl}/card`);
  await expect(phone.getByText(/fingerprint of its certificate: [0-9A-F]{4}( [0-9A-F]{4}){15}/)).toBeVisible();
  await phone.getByLabel("Passphrase").fill(PINHOLE_PASSPHRASE);
  await phone.getByRole("button", { name: "Enter" }).click();
  await expect(phone.getByTestId("turn")).toContainText("Dawn walk between the rows");
  const kept = () =>
    phone.evaluate(async () => ({
      local: Object.keys(localStorage).filter(
        (key) => key.startsWith("pinhole.draft") || key.startsWith("pinhole.last"),
      ),
      answers: await new Promise<number>((resolve) => {
        const open = indexedDB.open("pinhole");
        open.onsuccess = () => {
          const db = open.result;
          if (!db.objectStoreNames.contains("answers")) {
            db.close();
            resolve(0);
            return;
          }
          const count = db.transaction("answers").objectStore("answers").count();
          count.onsuccess = () => {
            db.close();
            resolve(count.result);
          };
        };
      }),
    }));
  await expect.poll(async () => (await kept()).answers).toBeGreaterThan(0);

  await page.goto(`${app.url}/shoot`);
  await page.getByRole("button", { name: "On the phone" }).click();
  const devices = page.getByRole("list", { name: "Devices that are in" }).getByRole("listitem");
  await expect(devices).toHaveCount(1);
  await devices.getByRole("button", { name: "Shut out" }).click();
  await expect(page.getByText("No device is in.")).toBeVisible();

  await phone.reload();
  await expect(phone.getByRole("heading", { name: "Your passphrase" })).toBeVisible();
  await expect(phone.getByText("Dawn walk")).toHaveCount(0);
  // It lets go as soon as it learns of it, and then begins anew.
  await expect.poll(() => kept().catch(() => null)).toEqual({ local: [], answers: 0 });

  // So it does where its browser never says that the store is gone.
  await phone.getByLabel("Passphrase").fill(PINHOLE_PASSPHRASE);
  await phone.getByRole("button", { name: "Enter" }).click();
  await expect(phone.getByTestId("turn")).toContainText("Dawn walk between the rows");
  await page.reload();
  await page.getByRole("button", { name: "On the phone" }).click();
  await devices.getByRole("button", { name: "Shut out" }).click();
  await expect(page.getByText("No device is in.")).toBeVisible();
  await phone.addInitScript(() => {
    const drop = IDBFactory.prototype.deleteDatabase;
    IDBFactory.prototype.deleteDatabase = function (name) {
      return Object.assign(drop.call(this, name), { addEventListener: () => {} });
    };
  });
  await phone.route("**/api/**", async (route) => {
    // It stands on the screen by then, and whether it is let in is what it learns last.
    await new Promise((resolve) => setTimeout(resolve, route.request().url().endsWith("/session") ? 2_000 : 700));
    await route.continue();
  });
  await phone.reload();
  await expect(phone.getByRole("heading", { name: "Your passphrase" })).toBeVisible();
});

test.describe("off by default", () => {
  test.use({ lan: false });
  test("without --lan it says how", async ({ page, app }) => {
    expect(app.phoneUrl).toBe("");
    await page.goto(`${app.url}/shoot`);
    await page.getByRole("button", { name: "On the phone" }).click();
    await expect(page.getByText("pinhole serve --lan")).toBeVisible();
  });
});
