import type { Page } from "@playwright/test";
import { type App, edit, expect, on, openShot, test } from "../app.ts";
import { measured, print } from "./painted.ts";

const TIMES = 40;

test.beforeEach(({ page }) => measured(page));

/** Not tests: they print how long it takes from what a hand does to the painted answer. */

test("a bare field", async ({ page, app }) => {
  const request = await requestOf(page, app, "Pond from above");
  await page.evaluate(() => {
    document.body.innerHTML = '<input id="bare"><output id="answer">-</output>';
  });
  const through = (server: boolean, i: number) =>
    page.evaluate(
      async ({ server, request, text }) => {
        const field = document.querySelector<HTMLInputElement>("#bare");
        const answer = document.querySelector("#answer");
        if (!field || !answer) throw new Error("no field");
        field.oninput = async () => {
          if (!server) {
            answer.textContent = field.value;
            return;
          }
          request.light.at.text = field.value;
          const response = await fetch("/api/calc/shot", {
            method: "POST",
            headers: { "Content-Type": "application/json" },
            body: JSON.stringify(request),
          });
          const { chosen } = await response.json();
          answer.textContent = `${field.value} ${chosen.leftStops}`;
        };
        return window.untilPainted("#answer", () => window.write(field, text));
      },
      { server, request, text: meter(i) },
    );
  for (const server of [false, true]) {
    const times: number[] = [];
    for (let i = 0; i < TIMES; i++) times.push(await through(server, i));
    print(server ? "a bare field, through the server" : "a bare field, without a server", times);
  }
});

test("a reading in its field", async ({ page, app }) => {
  await openMeter(page, app);
  const times: number[] = [];
  for (let i = 0; i < TIMES; i++)
    times.push(
      await page.evaluate((text) => {
        const field = [...document.querySelectorAll("input")].find(
          (e) => e.labels?.[0]?.textContent === "what the meter says",
        );
        if (!field) throw new Error("no meter");
        return window.untilPainted('[data-testid="error"]', () => window.write(field, text));
      }, meter(i)),
    );
  print("a reading typed in its field", times);
});

test("the line of a shot", async ({ page, app }) => {
  await openShot(page, app, "Pond from above");
  await page.getByRole("button", { name: "Write it…" }).click();
  const field = page.getByRole("textbox", { name: "The shot in one line" });
  await field.fill("f2 1/1250 iso100 > 50 fps");
  await expect(page.getByTestId("line-words")).toContainText("Enter takes it");
  const times: number[] = [];
  for (let i = 0; i < TIMES; i++)
    times.push(
      await field.evaluate(
        (input, text) =>
          window.untilPainted('[data-testid="line-words"]', () => window.write(input as HTMLInputElement, text)),
        `${meter(i)} > ${i % 2 ? 50 : 25} fps`,
      ),
    );
  print("typed in the line of a shot", times);
});

test("the quick line", async ({ page, app }) => {
  await openShot(page, app, "Pond from above");
  const field = page.getByRole("textbox", { name: /^Quick line/ });
  await field.fill("EV 15.0 > 25 fps");
  await expect(page.getByTestId("line-glass")).toBeVisible();
  const times: number[] = [];
  for (let i = 0; i < TIMES; i++)
    times.push(
      await field.evaluate(
        (input, text) =>
          window.untilPainted('[data-testid="quick-answer"]', () => window.write(input as HTMLInputElement, text)),
        `${meter(i)} > 25 fps`,
      ),
    );
  print("typed in the quick line", times);
});

test("the shutter", async ({ page, app }) => {
  await openMeter(page, app);
  const times: number[] = [];
  for (let i = 0; i < TIMES; i++) {
    await neverAnswered(page, i);
    times.push(
      await on(page).shutter.evaluate((slider, i) => {
        const box = slider.getBoundingClientRect();
        (slider as HTMLElement).setPointerCapture = () => {};
        const fire = (type: string, share: number) =>
          slider.dispatchEvent(
            new PointerEvent(type, {
              bubbles: true,
              pointerId: 1,
              isPrimary: true,
              clientX: box.left + share * box.width,
              clientY: box.top + 20,
            }),
          );
        if (i === 0) fire("pointerdown", 0.5);
        return window.untilPainted('[data-testid="error"]', () =>
          fire("pointermove", 0.55 + (0.35 * ((i * 7) % 20)) / 20),
        );
      }, i),
    );
  }
  print("a dragged shutter", times);
});

test("glass", async ({ page, app }) => {
  await openMeter(page, app);
  const chips = page.getByRole("group", { name: "Filters to put on" }).first().getByRole("button");
  const times: number[] = [];
  for (let i = 0; i < TIMES; i++) {
    await neverAnswered(page, i);
    times.push(
      await chips
        .nth(i % 2)
        .evaluate((chip) => window.untilPainted('[data-testid="glass"]', () => (chip as HTMLElement).click())),
    );
  }
  print("glass put on and taken off", times);
});

test("a shot of forty", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot/${await dayOfForty(page, app)}`);
  await expect(page.getByTestId("plan")).toContainText("Shot 39");
  await page.waitForTimeout(1_000);
  const times: number[] = [];
  for (let i = 0; i < TIMES; i++) {
    times.push(
      await page.getByRole("slider", { name: `Shot ${i}`, exact: true }).evaluate(async (slider) => {
        const box = slider.querySelector("rect")?.getBoundingClientRect();
        if (!box) throw new Error("no bar");
        (slider as Element).setPointerCapture = () => {};
        const fire = (type: string, by: number) =>
          slider.dispatchEvent(
            new PointerEvent(type, {
              bubbles: true,
              pointerId: 1,
              isPrimary: true,
              clientX: box.left + 4 + by,
              clientY: box.top + 4,
            }),
          );
        fire("pointerdown", 0);
        const took = await window.untilPainted('[data-testid="plan"]', () => fire("pointermove", 16));
        fire("pointercancel", 16);
        return took;
      }),
    );
    await page.waitForTimeout(800); // until it is stored
  }
  print("a shot of forty, dragged", times);
});

/** A shot whose light is typed in a field that is open. */
async function openMeter(page: Page, app: App): Promise<void> {
  await openShot(page, app, "Pond from above");
  await (await edit(page, "Light")).getByRole("button", { name: "Light meter", exact: true }).click();
  await on(page).meter.fill("EV 15.0");
  await page.waitForTimeout(1_500);
}

/** Another light, so that what is measured next was never answered before. */
async function neverAnswered(page: Page, i: number): Promise<void> {
  await on(page).meter.fill(`EV ${(13 + i / 100).toFixed(2)}`);
  await page.waitForTimeout(1_500); // until it is stored and its pictures are drawn
}

const meter = (i: number): string => `EV ${(12 + (i % 30) / 10).toFixed(1)}`;

/** What the page asks of a shot. */
async function requestOf(page: Page, app: App, name: string) {
  const asked = page.waitForRequest(/\/api\/calc\/shot$/);
  await openShot(page, app, name);
  await (await edit(page, "Light")).getByRole("button", { name: "Light meter", exact: true }).click();
  const request = (await asked).postDataJSON();
  return { ...request, light: { kind: "meter", at: { text: "EV 15" } } };
}

/** A day on which forty shots are planned. */
async function dayOfForty(page: Page, app: App): Promise<string> {
  const post = async (path: string, data: unknown) => (await page.request.post(`${app.url}${path}`, { data })).json();
  const { items: cameras } = await (await page.request.get(`${app.url}/api/cameras`)).json();
  const shoot = await post("/api/shoots", {
    name: "Forty",
    day: { where: { latDeg: 38.4, lonDeg: -20.5 }, zone: "Etc/GMT+1", firstDay: "2031-09-20", lastDay: "2031-09-20" },
  });
  for (let i = 0; i < 40; i++)
    await post("/api/shots", {
      shootId: shoot.id,
      cameraId: cameras[i % 4].id,
      name: `Shot ${i}`,
      startsAt: `2031-09-20T${String(7 + Math.floor(i / 4)).padStart(2, "0")}:00:00-01:00`,
      day: { minutes: 30, plane: "vertical" },
      look: { fps: cameras[i % 4].rates[0], target: "180°" },
      light: { kind: "meter", at: { text: "EV 14" } },
      choices: {},
    });
  return shoot.id;
}
