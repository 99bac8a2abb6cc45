import type { Page } from "@playwright/test";
import { type App, edit, expect, on, openShot, test } from "../app.ts";

/** The ways that the questions of a page took, as they are asked. */
function waysOf(page: Page): ("request" | "connection")[] {
  const ways: ("request" | "connection")[] = [];
  page.on("request", (r) => {
    if (r.url().endsWith("/api/calc/shot")) ways.push("request");
  });
  page.on("websocket", (connection) =>
    connection.on("framesent", ({ payload }) => {
      if (`${payload}`.includes(" shot ")) ways.push("connection");
    }),
  );
  return ways;
}

async function openMeter(page: Page, app: App): Promise<(text: string, glass: string) => Promise<void>> {
  await openShot(page, app, "Crates down the lane");
  await (await edit(page, "Light")).getByRole("button", { name: "Light meter", exact: true }).click();
  return async (text, glass) => {
    await on(page).meter.fill(text);
    await expect(on(page).glass).toHaveText(glass);
  };
}

test("a page keeps a connection open for its questions, and opens another when the server is back", async ({
  page,
  app,
}) => {
  const ways = waysOf(page);
  let opened = 0;
  page.on("websocket", () => opened++);
  const read = await openMeter(page, app);
  let n = 0;
  const untilConnected = () =>
    expect
      .poll(
        async () => {
          n++; // a light that was not asked about yet
          await read(`EV 12.${50 + n}`, "ND8");
          await read(`EV 8.${10 + n}`, "No filter");
          return ways.at(-1);
        },
        { timeout: 30_000 }, // a page that lost its server computes by itself for a while
      )
      .toBe("connection");
  await untilConnected();
  const before = opened;
  ways.length = 0;
  await app.stop();
  await app.start();
  await untilConnected();
  expect(opened).toBeGreaterThan(before);
});

for (const [what, does] of [
  ["none is let through", "close"],
  ["nothing is answered on it", "wait"],
] as const)
  test(`where ${what}, the page is answered all the same`, async ({ page, app }) => {
    let tried = 0;
    await page.routeWebSocket("**/api/calc", (connection) => {
      tried++;
      if (does === "close") return connection.close();
      connection.onMessage(() => {}); // as where a telephone lost its network
    });
    const read = await openMeter(page, app);
    for (const [text, glass] of [
      ["EV 12.6", "ND8"],
      ["EV 8.0", "No filter"],
      ["EV 12.7", "ND8"],
      ["EV 8.1", "No filter"],
      ["EV 12.8", "ND8"],
    ] as const)
      await read(text, glass);
    expect(tried).toBeGreaterThan(0);
  });
