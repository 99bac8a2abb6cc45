import { readdirSync, readFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { type App, ableWithoutServer, expect, test } from "../app.ts";

test.use({ serviceWorkers: "allow", viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true });

/** Opens the card and waits until the page could do without its server. */
async function visitOnce(page: Page, app: App): Promise<void> {
  await page.goto(`${app.url}/card`);
  await expect(page.getByTestId("turn")).toContainText("Dawn walk between the rows");
  await ableWithoutServer(page);
}

const check = (page: Page, name: RegExp) => page.getByRole("checkbox", { name });
const reach = (page: Page) => page.getByTestId("reach");

test("after one visit the card opens, computes and keeps what is done with the server gone", async ({ page, app }) => {
  test.slow();
  await visitOnce(page, app);
  const browser = await page.context().newCDPSession(page);
  const { installabilityErrors } = await browser.send("Page.getInstallabilityErrors");
  // A test's window is a private one, into which nothing is installed.
  const inTheWay = installabilityErrors.map((e) => e.errorId).filter((id) => id !== "in-incognito");
  expect(inTheWay, "what keeps it from being installed").toEqual([]);
  await app.stop();
  await page.reload();
  await expect(page.getByTestId("turn")).toContainText("Dawn walk between the rows");
  await expect(page.getByTestId("figure-Filter")).toHaveText("ND32");
  await expect(reach(page)).toContainText("offline");
  const line = page.getByRole("textbox", { name: /^Quick line/ });
  await line.fill("row walker (pocket gimbal) EV 14.8 > 25fps"); // with the gear and the defaults that are kept
  await expect(page.getByTestId("quick-answer")).toContainText("ND8 + ND32");
  await line.fill("");
  // Checks are ticked, and a reading pinned: computed in the page, kept on the device.
  await page.getByRole("button", { name: /^Checks/ }).tap();
  await check(page, /^Pull test/).tap();
  await expect(check(page, /^Pull test/)).toBeChecked();
  await page.getByRole("button", { name: "Close" }).tap();
  await page.getByRole("button", { name: "Re-meter" }).tap();
  await page.getByRole("button", { name: "−2", exact: true }).tap();
  await expect(page.getByTestId("remetered")).toContainText("stops from the forecast EV");
  await page.getByRole("button", { name: "Correct the forecast" }).tap();
  await expect(reach(page)).toContainText("3 waiting");
  await page.reload(); // nothing is lost
  await expect(reach(page)).toContainText("3 waiting");
  await page.getByRole("button", { name: /^Log/ }).tap();
  await expect(page.getByTestId("waiting")).toContainText("bias -2 behind ND32");
  await app.start();
  await expect(reach(page)).toHaveCount(0, { timeout: 30_000 });
  await expect(page.getByTestId("log").getByRole("listitem")).toHaveCount(3);
  await page.reload();
  await page.getByRole("button", { name: /^Log/ }).tap();
  await expect(page.getByTestId("log").getByRole("listitem")).toHaveCount(3);
  const id = new URL(page.url()).pathname.split("/").at(-1);
  const day = await page.request.get(`${app.url}/api/shoots/${id}/day`);
  const { readings, shoot } = await day.json();
  expect(readings.map((r: { words: string }) => r.words)).toEqual(["bias -2 behind ND32, Dawn walk between the rows"]);
  expect(shoot.day.anchor.words).toContain("bias -2");
});

test("the worker leaves the certificate and what is no place to the server", async ({ page, app }) => {
  await visitOnce(page, app);
  for (const path of ["/ca.crt", "/api/nothing"]) {
    const answer = await page.goto(`${app.url}${path}`);
    expect(answer?.fromServiceWorker(), path).toBe(false);
    expect(answer?.status(), path).toBe(404);
  }
});

test("the same step ticked in two windows reaches the server from both, once each, and is shown", async ({
  page,
  app,
  context,
}) => {
  test.slow();
  await visitOnce(page, app);
  // The other device: nothing of it is shared with the first.
  const other = await context
    .browser()
    ?.newContext({ serviceWorkers: "allow" })
    .then((c) => c.newPage());
  if (!other) throw new Error("no second window");
  await visitOnce(other, app);
  await app.stop();
  for (const tab of [page, other]) {
    await tab.getByRole("button", { name: /^Checks/ }).click();
    await check(tab, /^Pull test/).click();
    await expect(check(tab, /^Pull test/)).toBeChecked();
    await expect(reach(tab)).toContainText("1 waiting");
  }
  await app.start();
  for (const tab of [page, other]) await expect(reach(tab)).toHaveCount(0, { timeout: 30_000 });
  await page.reload();
  await page.getByRole("button", { name: /^Checks/ }).click();
  await expect(check(page, /^Pull test/)).toContainText("ticked again");
  await page.getByRole("button", { name: "Close" }).click();
  await page.getByRole("button", { name: /^Log/ }).click();
  await expect(page.getByTestId("log").getByRole("listitem")).toHaveCount(2);
  await expect(page.getByTestId("log")).toContainText("ticked already");
  await other.context().close();
});

test("two tabs of one device send what waits once", async ({ page, app, context }) => {
  test.slow();
  await visitOnce(page, app);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByTestId("turn")).toContainText("Dawn walk");
  await app.stop();
  await page.getByRole("button", { name: /^Checks/ }).tap();
  await check(page, /^Pull test/).tap();
  // What is ticked in one is ticked in the other.
  await other.getByRole("button", { name: /^Checks 1/ }).tap();
  await expect(check(other, /^Pull test/)).toBeChecked();
  await app.start();
  await expect(reach(page)).toHaveCount(0, { timeout: 30_000 });
  await expect(reach(other)).toHaveCount(0, { timeout: 30_000 });
  const id = new URL(page.url()).pathname.split("/").at(-1);
  const card = await (await page.request.get(`${app.url}/api/shoots/${id}/card`)).json();
  expect(card.log).toHaveLength(1);
  expect(card.log[0].clash).toBeUndefined();
});

test("two pins that do not agree are shown, and one is chosen", async ({ page, app }) => {
  test.slow();
  await visitOnce(page, app);
  await app.stop();
  await page.getByRole("button", { name: "Re-meter" }).tap();
  await page.getByRole("button", { name: "−2", exact: true }).tap();
  await page.getByRole("button", { name: "Correct the forecast" }).tap();
  await expect(reach(page)).toContainText("2 waiting");
  await app.start();
  // Somebody at a desk pins another before this device is heard.
  const id = new URL(page.url()).pathname.split("/").at(-1);
  await page.request.put(`${app.url}/api/shoots/${id}/log/desk-entry-1`, {
    data: {
      kind: "pin",
      at: "2031-09-20T07:00:00-01:00",
      words: "meter at the desk",
      anchor: { at: "2031-09-20T07:00:00-01:00", ev100: 11, source: "real" },
    },
  });
  await expect(reach(page)).toHaveCount(0, { timeout: 30_000 });
  await page.getByRole("button", { name: /^Log/ }).tap();
  const clash = page.getByTestId("clash");
  await expect(clash).toContainText("Standing: EV 11.0");
  await clash.getByRole("button", { name: "Use this one" }).tap();
  await expect(clash).toHaveCount(0);
  await expect
    .poll(async () => (await (await page.request.get(`${app.url}/api/shoots/${id}`)).json()).day.anchor.words)
    .toContain("bias -2");
});

interface Case {
  calc: string;
  request: unknown;
}

/** Numbers of two answers agree to a part in a billion: some functions differ in their last bit. */
function agree(a: unknown, b: unknown): boolean {
  if (typeof a === "number" && typeof b === "number") return Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a));
  if (Array.isArray(a) && Array.isArray(b)) return a.length === b.length && a.every((v, i) => agree(v, b[i]));
  if (a && b && typeof a === "object" && typeof b === "object") {
    const keys = Object.keys(a);
    return (
      keys.length === Object.keys(b).length &&
      keys.every((k) => agree((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
    );
  }
  return a === b;
}

test("the page computes every worked case as the server does", async ({ page, app }) => {
  test.slow();
  const folder = "../core/calc/testdata/cases";
  const cases = readdirSync(folder).flatMap((file) => JSON.parse(readFileSync(`${folder}/${file}`, "utf8")) as Case[]);
  cases.push(
    { calc: "solve", request: { camera: {} } }, // refused: the same problem
    { calc: "spell", request: {} },
  );
  await visitOnce(page, app);
  const id = new URL(page.url()).pathname.split("/").at(-1);
  const card = await (await page.request.get(`${app.url}/api/shoots/${id}/card`)).json();
  cases.push({ calc: "card", request: card.request }, { calc: "outing", request: card.request.outing });
  const fromServer = await Promise.all(
    cases.map(async (c) => {
      const answer = await page.request.post(`${app.url}/api/calc/${c.calc}`, { data: c.request as object });
      return { status: answer.status(), body: await answer.json() };
    }),
  );
  await app.stop();
  const differing: string[] = [];
  for (const [i, c] of cases.entries()) {
    // By the page's own client, which has no server to ask.
    const here = await page.evaluate(async ({ calc, request }) => {
      type Calc = (name: string, body: string) => Promise<{ status: number; text: string }>;
      const ask = (window as unknown as { pinhole: { calc: Calc } }).pinhole;
      const { status, text } = await ask.calc(calc, JSON.stringify(request));
      return { status, body: JSON.parse(text) };
    }, c);
    const there = fromServer[i];
    if (c.calc === "spell" ? here.status !== 404 : here.status !== there?.status || !agree(there.body, here.body)) {
      differing.push(
        `${c.calc} ${i}: ${JSON.stringify(there).slice(0, 300)} against ${JSON.stringify(here).slice(0, 300)}`,
      );
    }
  }
  expect(cases.length).toBeGreaterThan(50);
  expect(differing).toEqual([]);
});

test("what a device's own store refuses is said, waits in the window, and is not lost", async ({ page, app }) => {
  await page.addInitScript(() => {
    // As in a window whose store is full.
    IDBObjectStore.prototype.add = () => {
      throw new DOMException("full", "QuotaExceededError");
    };
  });
  await page.goto(`${app.url}/card`);
  await expect(page.getByTestId("turn")).toContainText("Dawn walk between the rows");
  await app.stop();
  await page.getByRole("button", { name: /^Log/ }).tap();
  await page.getByLabel("Note").fill("wind from the sea");
  await page.getByRole("button", { name: "Note it" }).tap();
  await expect(page.getByText("This device keeps nothing: its storage is full or closed")).toBeVisible();
  await expect(page.getByTestId("waiting")).toContainText("wind from the sea");
  await expect(page.getByRole("button", { name: "Copy what waits" })).toBeVisible();
  await app.start();
  await expect(page.getByTestId("waiting")).toHaveCount(0, { timeout: 15_000 });
  await expect(page.getByTestId("log")).toContainText("wind from the sea");
});
