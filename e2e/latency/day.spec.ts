import { expect, test } from "../app.ts";

/** Not a test: prints how long a day of forty shots takes from a dragged bar to the painted plan. */
test("from a dragged bar to the plan on the screen", async ({ page, app }) => {
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
  await page.goto(`${app.url}/shoot/${shoot.id}`);
  await expect(page.getByTestId("plan")).toContainText("Shot 39");
  await page.waitForTimeout(500);
  const times: number[][] = [];
  for (let i = 0; i < 20; i++) {
    times.push(
      await page.evaluate(async (step) => {
        const bar = [...document.querySelectorAll('[role="slider"]')].find(
          (e) => e.getAttribute("aria-label") === "Shot 20",
        );
        const box = bar?.querySelector("rect")?.getBoundingClientRect();
        const plan = document.querySelector('[data-testid="plan"]');
        if (!bar || !box || !plan) throw new Error("not on the day");
        const fire = (type: string, x: number) =>
          bar.dispatchEvent(
            new PointerEvent(type, { bubbles: true, pointerId: 1, clientX: x, clientY: box.top + 20, isPrimary: true }),
          );
        (bar as Element & { setPointerCapture: () => void }).setPointerCapture = () => {};
        fire("pointerdown", box.left + 4);
        const start = performance.now();
        const planned = new Promise<number[]>((resolve) => {
          new MutationObserver((_, observer) => {
            observer.disconnect();
            const changedAt = performance.now();
            const request = performance.getEntriesByType("resource").findLast((e) => e.name.endsWith("/outing"));
            requestAnimationFrame(() =>
              resolve([
                performance.now() - start,
                (request?.startTime ?? 0) - start,
                request?.duration ?? 0,
                changedAt - (request as PerformanceResourceTiming).responseEnd,
              ]),
            );
          }).observe(plan, { childList: true, characterData: true, subtree: true });
        });
        fire("pointermove", box.left + 4 + (step % 2 === 0 ? 12 + step : -12 - step));
        const took = await planned;
        fire("pointercancel", box.left + 4);
        return took;
      }, i),
    );
    await page.waitForTimeout(800);
  }
  const part = (i: number, share: number) => {
    const all = times.map((t) => t[i] ?? 0).sort((a, b) => a - b);
    return all[Math.floor(share * (all.length - 1))]?.toFixed(1);
  };
  console.log(
    `dragged bar to plan, 40 shots: median ${part(0, 0.5)} ms, 90 % ${part(0, 0.9)} ms, longest ${part(0, 1)} ms; ` +
      `to the request ${part(1, 0.5)}, the request ${part(2, 0.5)}, from it to the change ${part(3, 0.5)}`,
  );
});
