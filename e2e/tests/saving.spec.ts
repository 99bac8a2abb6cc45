import { rename } from "node:fs/promises";
import { atQuestions, edit, expect, on, openShot, test } from "../app.ts";

test("of two tabs on one shot the later is told, and chooses", async ({ page, app, context }) => {
  await openShot(page, app, "Crates down the lane");
  await edit(page, "Light");
  const other = await context.newPage();
  await other.goto(page.url());
  const meterOf = (tab: typeof page) => tab.getByLabel("shutter it chose");

  await expect(meterOf(other)).toHaveValue("1/2000"); // it has the shot before that is changed
  const storedBy = (tab: typeof page) => tab.waitForResponse((r) => r.request().method() === "PUT" && r.ok());
  const stored = storedBy(page);
  await meterOf(page).fill("1/1000");
  await stored;
  await meterOf(other).fill("1/4000");
  const alert = other.getByRole("alert").filter({ hasText: "changed elsewhere" });
  await expect(alert).toContainText("auto 1/1000");
  await expect(on(other).saved).toHaveText("not saved");
  await expect(meterOf(other)).toHaveValue("1/4000"); // nothing typed is lost
  await other.getByRole("button", { name: "Take theirs" }).click();
  await expect(meterOf(other)).toHaveValue("1/1000");
  await expect(alert).toHaveCount(0);

  const storedAgain = storedBy(other);
  await meterOf(other).fill("1/500");
  await storedAgain;
  await meterOf(page).fill("1/8000");
  await page.getByRole("button", { name: "Keep mine" }).click();
  await expect(on(page).saved).toHaveText(/^saved/);
  await other.reload();
  await expect(meterOf(other)).toHaveValue("1/8000");
});

test("while the server is gone nothing typed is lost, and it is stored when it is back", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  await expect(on(page).glass).toHaveText("ND16");
  // The answer comes first; the pause before saving leaves time to stop the server.
  await page.getByLabel("Name of the shot").fill("Crates, second take");
  await app.stop();
  await expect(on(page).saved).toContainText("not saved: The server does not answer. Trying again.");
  await app.start();
  await expect(on(page).saved).toHaveText(/^saved/, { timeout: 10_000 });
  await page.reload();
  await expect(page.getByLabel("Name of the shot")).toHaveValue("Crates, second take");
});

test("leaving the screen at once still stores the change, not yet answered or answered", async ({ page, app }) => {
  const leave = async (name: string) => {
    await page.getByLabel("Name of the shot").fill(name);
    await page.getByRole("link", { name: "Shoots", exact: true }).click();
    await expect(page.getByRole("link", { name: new RegExp(name) })).toBeVisible();
  };
  let isHeld = true;
  await atQuestions(page, "shot", () => isHeld && new Promise(() => {})); // for ever on its way
  await openShot(page, app, "Crates down the lane");
  await leave("Left in a hurry");
  isHeld = false;
  await openShot(page, app, "Left in a hurry");
  await expect(on(page).glass).toHaveText("ND16");
  await leave("Left in greater haste");
});

test("a lens that was made bare by hand stays bare, on every screen", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  const stored = page.waitForResponse((r) => r.request().method() === "PUT" && r.ok());
  await page.getByRole("group", { name: "Filters to put on" }).getByRole("button", { name: "ND16" }).click();
  await expect(on(page).glass).toHaveText("No filter");
  await stored;
  await page.reload();
  await expect(on(page).glass).toHaveText("No filter");
  await expect(page.getByTestId("plan-line")).toContainText("No filter, by hand");
  await page.getByRole("link", { name: "Field card now" }).click();
  await expect(page.getByTestId("figure-Filter")).toContainText("No filter");
  await page.getByRole("link", { name: "Shoots", exact: true }).click();
  await expect(page.getByText("No filter, by hand")).toBeVisible();
});

test("the list gives back what was deleted, and stores once what was sent twice", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await test.step("a deleted shot can be brought back", async () => {
    await page.getByRole("button", { name: "Delete Pond from above" }).click();
    await expect(page.getByRole("link", { name: /Pond from above/ })).toHaveCount(0);
    await page.getByRole("button", { name: "Undo" }).click();
    await expect(page.getByRole("link", { name: /Pond from above/ })).toBeVisible();
  });
  await test.step("what was stored and whose answer was lost is not stored twice", async () => {
    let cut = 0;
    await page.route("**/api/shoots", async (route) => {
      if (route.request().method() !== "POST" || cut > 0) return route.fallback();
      cut++;
      await route.fetch(); // it reaches the server, and the answer is lost
      return route.abort();
    });
    const name = page.getByLabel("A new shoot");
    await name.fill("Sent twice");
    await page.getByRole("button", { name: "Add shoot" }).click();
    await expect(page.getByText("The server does not answer.")).toBeVisible();
    await page.getByRole("button", { name: "Add shoot" }).click();
    await expect(name).toHaveValue("");
    await expect(page.getByRole("heading", { name: "Sent twice" })).toHaveCount(1);
  });
});

test("answers that come out of order never show", async ({ page, app }) => {
  // The answer to EV 8 is held back until the one to EV 12.6 is there.
  let release = () => {};
  const held = new Promise<void>((resolve) => {
    release = resolve;
  });
  await atQuestions(page, "shot", (body) => body.includes("EV 8.0") && held);
  await openShot(page, app, "Crates down the lane");
  await edit(page, "Light");
  await page.getByRole("button", { name: "Light meter", exact: true }).click();
  const seen: string[] = [];
  await page.exposeFunction("saw", (text: string) => seen.push(text));
  await on(page).glass.evaluate((node) => {
    new MutationObserver(() => (window as unknown as { saw: (t: string) => void }).saw(node.textContent ?? "")).observe(
      node,
      {
        childList: true,
        characterData: true,
        subtree: true,
      },
    );
  });
  await on(page).meter.fill("EV 8.0");
  await on(page).meter.fill("EV 12.6");
  await expect(on(page).glass).toHaveText("ND8");
  release();
  await page.waitForTimeout(1000);
  await expect(on(page).glass).toHaveText("ND8");
  expect(seen).not.toContain("No filter");
});

test("what is stored is told anew only with the answer", async ({ page, app }) => {
  let isSlow = false;
  await atQuestions(page, "shot", () => isSlow && new Promise((resolve) => setTimeout(resolve, 500)));
  await openShot(page, app, "Crates down the lane");
  const note = on(page).saved;
  await expect(note).toHaveText(/^saved/);
  const before = await on(page).glass.innerText();
  isSlow = true;
  // Which glass is shown at each change of the note: the time of day in it may be the same again.
  const shown: string[] = [];
  await page.exposeFunction("saw", (glass: string) => shown.push(glass));
  await note.evaluate((node) => {
    new MutationObserver(() =>
      (window as unknown as { saw: (glass: string) => void }).saw(
        document.querySelector<HTMLElement>('[data-testid="glass"]')?.innerText ?? "",
      ),
    ).observe(node, { childList: true, characterData: true, subtree: true });
  });
  await page.getByRole("group", { name: "Filters to put on" }).first().getByRole("button").first().click();
  await expect.poll(() => shown.length).toBeGreaterThan(1);
  await expect(note).toHaveText(/^saved/);
  expect(shown).not.toContain(before);
});

test("a data file that is gone is said, nothing typed is lost, and it goes on by itself", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  await rename(app.data, `${app.data}.away`);
  await page.getByLabel("Name of the shot").fill("Crates, typed meanwhile");
  await expect(page.getByTestId("save-note")).toContainText("no longer where it was opened");
  await rename(`${app.data}.away`, app.data);
  await expect(page.getByTestId("save-note")).toContainText(/^saved/, { timeout: 15_000 });
  await page.reload();
  await expect(page.getByLabel("Name of the shot")).toHaveValue("Crates, typed meanwhile");
});

test("a shot of more glass than can be weighed is stored as typed, and all of the glass is listed", async ({
  page,
  app,
}) => {
  const { items: cameras } = await (await page.request.get(`${app.url}/api/cameras`)).json();
  const pocket = cameras.find((c: { name: string }) => c.name === "Row walker (pocket gimbal)");
  const add = (n: number) =>
    page.request.post(`${app.url}/api/filters`, { data: { label: "ND8", name: `no. ${n}`, cameras: [pocket.id] } });
  for (let n = 0; n < 210; n += 30) await Promise.all(Array.from({ length: 30 }, (_, i) => add(n + i)));
  await openShot(page, app, "Noon walk on the terrace");
  await expect(page.getByText(/Cannot be answered as it stands.*kit/)).toBeVisible();
  await page.getByLabel("Name of the shot").fill("Noon with everything");
  await expect(on(page).saved).toHaveText(/^saved/);
  await page.reload();
  await expect(page.getByLabel("Name of the shot")).toHaveValue("Noon with everything");
  // A list that comes in parts is shown whole.
  await page.goto(`${app.url}/kit`);
  const filters = page.getByRole("region", { name: "Filters" });
  await expect(filters.getByText("no. 0", { exact: true })).toBeVisible();
  await expect(filters.getByText("no. 209", { exact: true })).toBeVisible();
});
