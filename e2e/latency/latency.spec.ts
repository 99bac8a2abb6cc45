import { on, openShot, test } from "../app.ts";

/** Not a test: prints how long the page takes from a key press to the painted answer. */
test("from a key press to the answer on the screen", async ({ page, app }) => {
  await openShot(page, app, "Pond from above");
  await page.getByRole("button", { name: "Light meter", exact: true }).click();
  await on(page).meter.fill("EV 15.0");
  await page.waitForTimeout(500);
  const times: number[] = [];
  for (let i = 0; i < 40; i++) {
    const ev = (12 + (i % 30) / 10).toFixed(1);
    times.push(
      await page.evaluate(async (text) => {
        const field = [...document.querySelectorAll("input")].find(
          (e) => e.labels?.[0]?.textContent === "what the meter says",
        );
        const shown = document.querySelector('[data-testid="error"]');
        if (!field || !shown) throw new Error("not on the Shot screen");
        const start = performance.now();
        const answered = new Promise<number>((resolve) => {
          new MutationObserver((_, observer) => {
            observer.disconnect();
            requestAnimationFrame(() => resolve(performance.now() - start));
          }).observe(shown, { childList: true, characterData: true, subtree: true });
        });
        Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, text);
        field.dispatchEvent(new Event("input", { bubbles: true }));
        return answered;
      }, `EV ${ev}`),
    );
    await page.waitForTimeout(60);
  }
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.floor(share * (times.length - 1))]?.toFixed(1);
  console.log(
    `key press to answer, ${times.length} changes: median ${at(0.5)} ms, 90 % ${at(0.9)} ms, longest ${at(1)} ms`,
  );
});
