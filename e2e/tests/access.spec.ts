import type { Page } from "@playwright/test";
import axe, { type RunOptions } from "axe-core";
import { edit, expect, on, openShot, test, visit } from "../app.ts";

const SIZES = { desk: { width: 1280, height: 800 }, phone: { width: 390, height: 844 } };

type View = readonly [colorScheme: "light" | "dark", size: keyof typeof SIZES];

/** Each theme and each size once: colours do not hang on the size, nor widths on the theme. */
const VIEWS: View[] = [
  ["dark", "phone"],
  ["light", "desk"],
];

/** Shows the page in a view, and waits until nothing moves or changes its colour any more. */
async function see(page: Page, [colorScheme, size]: View) {
  await page.emulateMedia({ colorScheme });
  await page.setViewportSize(SIZES[size]);
  await page.evaluate(async () => {
    await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
    const willEnd = (a: Animation) =>
      a.playState === "running" && a.effect?.getComputedTiming().endTime !== Number.POSITIVE_INFINITY;
    const ending = document.getAnimations().filter(willEnd);
    await Promise.allSettled(ending.map((a) => a.finished));
  });
}

/** What axe finds on the page, or within parts of it: each rule with the markup that breaks it. */
async function violations(page: Page, options: RunOptions = {}, within = ["html"]): Promise<string[]> {
  if (!(await page.evaluate(() => "axe" in window))) await page.evaluate(axe.source);
  return page.evaluate(
    async ([options, within]) => {
      const { violations } = await (window as unknown as { axe: typeof axe }).axe.run(
        { include: within.map((selector) => [selector]) },
        { ...options, resultTypes: ["violations"] },
      );
      return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(" | ")}`);
    },
    [options, within] as const,
  );
}

/**
 * Looks at the page as it is in each of the views; it is left in the last of them. Where the rest of the page was looked
 * at before, axe looks at the part that is new.
 */
async function expectNoViolations(page: Page, where: string, { views = VIEWS, part = "html" } = {}) {
  for (const view of views) {
    await see(page, view);
    await expectNoViolationsInView(page, `${where}, ${view.join(", ")}`, part);
  }
}

async function expectNoViolationsInView(page: Page, where: string, part: string) {
  // What a box of its own scrolls may be as wide as it likes.
  const overflowing = await page.evaluate(() => {
    const isInScroller = (e: Element | null): boolean =>
      e !== null && (/auto|scroll/.test(getComputedStyle(e).overflowX) || isInScroller(e.parentElement));
    return [...document.querySelectorAll("main section, main section button, main svg")]
      .filter((e) => e.getBoundingClientRect().right > window.innerWidth && !isInScroller(e.parentElement))
      .map((e) => e.getAttribute("aria-label") ?? e.textContent);
  });
  expect(overflowing, `${where}: wider than the screen`).toEqual([]);
  expect(await violations(page, {}, [part]), where).toEqual([]);
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth),
    `${where}: no sideways scrolling`,
  ).toBe(true);
}

test("axe finds nothing", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await expect(page.getByRole("link", { name: /Pond from above/ })).toBeVisible();
  await expectNoViolations(page, "shoot");
  await openShot(page, app, "Crates down the lane");
  await expectNoViolations(page, "shot");
  await edit(page, "Light");
  await page.getByRole("button", { name: "By eye" }).click();
  await expect(page.getByRole("button", { name: "Too bright" })).toBeVisible();
  await expectNoViolations(page, "shot with a form open");
  await edit(page, "Look");
  await page.getByLabel("or your own").fill("nonsense");
  await expect(page.getByText("Cannot be answered as it stands.")).toBeVisible();
  await expectNoViolations(page, "shot with a fault");
  await page.getByRole("link", { name: "Kit", exact: true }).click();
  await expect(
    page.getByRole("region", { name: "Filters" }).getByRole("cell", { name: "mist 1/4", exact: true }),
  ).toBeVisible();
  await expectNoViolations(page, "kit");
});

test("axe finds nothing in the kit and the day", async ({ page, app }) => {
  test.slow(); // nine views, each looked at whole
  for (const part of ["fit", "coverage", "sets", "labels"]) {
    await visit(page, app, `/kit/${part}`);
    await expect(page.getByRole("region", { name: new RegExp(`^${part}$`, "i") })).toBeVisible();
    await page.waitForLoadState("networkidle");
    await expectNoViolations(page, part);
    if (part === "fit") {
      await page.getByRole("button", { name: /^ND16 C2 on Terrace quad/ }).click();
      await expect(page.getByTestId("corners")).toBeVisible();
      await expectNoViolations(page, "a filter on a rig", { part: "[role=dialog]" });
    }
  }
  await visit(page, app, "/kit");
  await page.getByRole("button", { name: "Edit Pond drone (camera drone)" }).click();
  await expect(page.getByLabel("White balance")).toBeVisible();
  await expectNoViolations(page, "a camera's form", { part: "main form" });
  await visit(page, app, "/shoot");
  await page.getByRole("link", { name: "Plan the day" }).click();
  await page.getByRole("slider", { name: "Pond from above" }).or(page.getByRole("slider").first()).first().focus();
  await expect(page.getByTestId("plan")).toContainText("Noon walk");
  await expectNoViolations(page, "day");
});

test("axe finds nothing where files are measured", async ({ page, app }) => {
  const sample = (name: string) => `../core/measure/testdata/${name}`;
  await page.goto(`${app.url}/measure`);
  await page.getByLabel("A frame", { exact: true }).setInputFiles(sample("bright.png"));
  await expect(page.getByTestId("frame-advice")).toContainText("darker");
  await expectNoViolations(page, "a frame");
  await visit(page, app, "/measure/telemetry");
  await page.getByLabel("A log").setInputFiles(sample("log-shutter.srt"));
  await expect(page.getByTestId("telemetry-says")).toContainText("Auto shutter was on");
  await expectNoViolations(page, "telemetry");
  await visit(page, app, "/measure/gyro");
  await page.getByLabel("A gyro log").setInputFiles(sample("gyro0.csv"));
  await expect(page.getByTestId("gyro-says")).toContainText("Hz");
  await expectNoViolations(page, "a gyro's log");
});

test("axe finds nothing in the log and in practice", async ({ page, app }) => {
  await page.goto(`${app.url}/log`);
  await expect(page.getByTestId("belief").first()).toBeVisible();
  await expectNoViolations(page, "what the log taught");
  await visit(page, app, "/practice");
  await expect(page.getByTestId("eye")).toBeVisible();
  await expectNoViolations(page, "practice");
  await page.getByRole("button", { name: "Three minutes" }).click();
  const answers = page.getByRole("group", { name: "Answers" }).getByRole("button");
  await expect(answers.first()).toBeVisible();
  await expectNoViolations(page, "a question");
});

test("axe finds nothing on the card", async ({ page, app }) => {
  test.slow(); // six views in each theme, each looked at whole
  const views: View[] = [
    ["dark", "phone"],
    ["light", "phone"],
  ];
  await page.setViewportSize(SIZES.phone);
  await page.goto(`${app.url}/card`);
  await page.getByRole("button", { name: "Terrace quad" }).click();
  await expect(page.getByTestId("stops")).toBeVisible();
  await expectNoViolations(page, "card", { views });
  // What is read in glare has a contrast of seven to one.
  const figures = ["[data-testid^=figure-]", "[data-testid=swap]", "[data-testid=stops]"];
  for (const view of views) {
    await see(page, view);
    expect(await violations(page, { runOnly: ["color-contrast-enhanced"] }, figures)).toEqual([]);
  }
  const sheets: [button: string | RegExp, then?: string | RegExp][] = [
    [/^Checks/, "Go on without it…"],
    ["Re-meter", "−2"],
    ["Goes wrong"],
    ["Tunnel or shade"],
    [/^Log/],
  ];
  for (const [button, then] of sheets) {
    await page.getByRole("button", { name: button }).first().click();
    await expect(page.getByRole("dialog")).toBeVisible();
    if (then) await page.getByRole("dialog").getByRole("button", { name: then }).first().click();
    await expectNoViolations(page, String(button), { views, part: "[role=dialog]" });
    await page.getByRole("button", { name: "Close" }).click();
    await expect(page.getByRole("dialog")).toHaveCount(0);
  }
});

test.describe("from nothing", () => {
  test.use({ demo: false });

  test("axe finds nothing on the first page", async ({ page, app }) => {
    await page.goto(app.url);
    await expect(page.getByRole("button", { name: "overcast" })).toBeVisible();
    await expectNoViolations(page, "first page");
    await page.getByLabel(/^The shot in one line/).fill("clouds with gaps > 25 · 8 16 · halmet");
    await expect(page.getByTestId("unread")).toBeVisible();
    await expectNoViolations(page, "a line that is answered");
  });
});

test("the whole job by keyboard alone", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  await expect(page.getByRole("link", { name: /Crates/ })).toBeVisible();
  const tabTo = async (name: RegExp) => {
    for (let i = 0; i < 80; i++) {
      await page.keyboard.press("Tab");
      const label = await page.evaluate(() => {
        const e = document.activeElement as HTMLInputElement | null;
        return e?.labels?.[0]?.textContent || e?.getAttribute("aria-label") || e?.textContent || "";
      });
      if (name.test(label)) return;
    }
    throw new Error(`Tab never reaches ${name}`);
  };
  await tabTo(/Crates down the lane/);
  await page.keyboard.press("Enter");
  await expect(on(page).glass).toHaveText("ND16");
  await page.keyboard.press("3");
  await expect(on(page).glass).toHaveText("ND32");
  await tabTo(/^light: /);
  await page.keyboard.press("Enter");
  await tabTo(/^Light meter$/);
  await page.keyboard.press("Space");
  await tabTo(/what the meter says/);
  await page.keyboard.press("ControlOrMeta+a");
  await page.keyboard.type("EV 12.6");
  await expect(on(page).error).toContainText("−2.1");
  await page.keyboard.press("Escape"); // back to the part that opened the form
  await page.keyboard.press("0");
  await expect(on(page).glass).toHaveText("ND8");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keyboard shortcuts" })).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(on(page).saved).toHaveText(/^saved/);
});

test.describe("by touch", () => {
  test.use({ hasTouch: true, viewport: SIZES.phone });

  test("glass goes on with a tap, and every target is large enough for a thumb", async ({ page, app }) => {
    await page.goto(`${app.url}/shoot`);
    await page.getByRole("link", { name: /Crates down the lane/ }).tap();
    await page.getByRole("button", { name: "3 ND32" }).tap();
    await expect(on(page).glass).toHaveText("ND32");
    const small = await page
      .getByRole("button")
      .evaluateAll((buttons) =>
        buttons.filter((b) => b.checkVisibility() && b.getBoundingClientRect().height < 43.5).map((b) => b.textContent),
      );
    expect(small).toEqual([]);
  });
});

test("the theme can be chosen and is remembered", async ({ page, app }) => {
  await page.emulateMedia({ colorScheme: "light" });
  await page.goto(`${app.url}/shoot`);
  const isDark = () => page.evaluate(() => document.documentElement.classList.contains("dark"));
  expect(await isDark()).toBe(false);
  await page.getByRole("button", { name: "Theme: follows the system. Change" }).click();
  await page.getByRole("button", { name: "Theme: light. Change" }).click();
  await page.reload();
  expect(await isDark()).toBe(true);
});

test("nothing is fetched from elsewhere, and the page runs under its policy", async ({ page, app }) => {
  const foreign: string[] = [];
  page.on("request", (request) => request.url().startsWith(app.url) || foreign.push(request.url()));
  await openShot(page, app, "Pond from above");
  await page.waitForLoadState("networkidle");
  expect(foreign.filter((url) => !url.startsWith("data:"))).toEqual([]);
  const answer = await page.request.get(app.url);
  expect(answer.headers()["content-security-policy"]).toContain("script-src 'self' 'wasm-unsafe-eval';");
  expect(await page.locator("script:not([src])").count()).toBe(0);
});
