import { drawer, edit, expect, on, openShot, takeTrade, test } from "../app.ts";

test("each demo shot's main question is answered", async ({ page, app }) => {
  /** What else is asked of a shot. */
  const besides: Record<string, () => Promise<void>> = {
    "Dive down the terraces": async () => {
      // It needs more tilt than there is.
      await expect(
        page.getByText("level flight at 20 m/s needs 44° of tilt; this rig leaves 40° with a filter on"),
      ).toBeVisible();
      await edit(page, "Motion");
      await expect(
        page.getByText(/At 1\/\d+ even full stick has no excess blur|a pan has excess blur beyond/).first(),
      ).toBeVisible();
    },
    "Pond from above": async () => {
      // From high and slow, glass for the look is optional, and effect glass says when it pays and when it hurts.
      await expect(page.getByText("ND optional")).toBeVisible();
      await edit(page, "Filters");
      const effects = page.getByTestId("effects");
      await expect(effects).toContainText("a reflection on water, leaf or window");
      await expect(effects).toContainText("this camera flies: its effect comes and goes as the drone turns");
    },
    "Press cellar, an hour in a minute": async () => {
      await edit(page, "Look");
      await expect(page.getByTestId("delivered")).toContainText("1s fits into the interval, 180° of it.");
    },
  };
  for (const [shot, glass, state, words] of [
    ["Dawn walk between the rows", "ND8", "holds", "within tolerance"],
    ["Crates down the lane", "ND16", "breaks", "stabiliser limit breaks by 1.2 stops"],
    ["Dive down the terraces", "Density 1.5", "tight", "auto shutter 1/240 to 1/120"],
    ["Lantern supper", "No filter", "tight", "ISO 1250 makes up 3.6 stops"],
    ["Pond from above", "ND32/PL", "holds", "within tolerance"],
    ["Press cellar, an hour in a minute", "VND 1-6 at 4.4", "holds", "within tolerance"],
  ] as const) {
    await openShot(page, app, shot);
    await expect(on(page).glass).toHaveText(glass);
    await expect(on(page).state).toContainText(state);
    await expect(on(page).state).toContainText(words);
    await besides[shot]?.();
  }
});

test("where two wishes conflict there are trades, numbers, approaches and a window to move in", async ({
  page,
  app,
}) => {
  await openShot(page, app, "Crates down the lane");
  await test.step("a conflict is named, and each trade says what the whole shot is with it", async () => {
    const { trades, glass, state, setting } = on(page);
    const conflict = "shutter target and stabiliser limit are 0.9 stops apart";
    await expect(trades).toContainText(conflict);
    // This camera has one view, so that no wider one is offered.
    await expect(trades.getByRole("button", { name: /view of/ })).toHaveCount(0);
    for (const [trade, after, becomes] of [
      [/shutter 1\/200, 90°.*covers it, tight: exposure/, /1\/240/, "tight"],
      [/^120 fps.*resolves it/, /1\/240/, "holds"],
      [/stabiliser off, camera on a tripod.*resolves it/, /1\/100/, "holds"],
    ] as const) {
      await takeTrade(page, trade);
      await expect(trades).toContainText("Applied:");
      await expect(setting).toHaveText(after);
      await expect(state).toContainText(becomes);
      await trades.getByRole("button", { name: "Undo" }).click();
      await expect(trades).toContainText(conflict);
      await expect(trades).not.toContainText("Applied:");
      await expect(state).toContainText("breaks");
      await expect(glass).toHaveText("ND16");
    }
  });
  await test.step("the chain of numbers can be followed by hand", async () => {
    await drawer(page, "Why");
    await page.getByRole("button", { name: "Explain the numbers" }).click();
    const chain = page.getByTestId("explain");
    // EV 13.94 at f/2.8, 1/2000; the setting needs log2(2.8²·100) = 9.61.
    await expect(chain).toContainText("13.94 − 9.61 − 0.00 = 4.32 stops");
    await expect(chain).toContainText("q · W / (f_px · ω · g)");
    await page.keyboard.press("Escape");
    await expect(chain).toHaveCount(0);
  });
  await test.step("loops stand still where motion is not wanted", async () => {
    const pair = page.getByRole("region", { name: "Preview" });
    await expect(pair.getByRole("button", { name: "Play" })).toBeVisible();
    await expect(pair.getByText("frame 1 of 16")).toBeVisible();
    await page.waitForTimeout(500);
    await expect(pair.getByText("frame 1 of 16")).toBeVisible();
  });
  await test.step("schools stand side by side, and one is taken by a press", async () => {
    const { schools, setting, state } = on(page);
    await drawer(page, "Approaches");
    await expect(schools.getByRole("button")).toHaveCount(6);
    await schools.getByRole("button", { name: /^stabiliser first/ }).click();
    await expect(setting).toHaveText(/^1\/250|^1\/240/);
    await expect(state).toContainText("shutter target");
    await schools.getByRole("button", { name: /^any shutter/ }).click();
    await expect(on(page).glass).toHaveText("No filter");
    await schools.getByRole("button", { name: /^automatic/ }).click();
    await expect(schools.getByRole("button", { name: /^automatic/ })).toHaveAttribute("aria-pressed", "true");
    await drawer(page, "Why");
    await expect(on(page).reasons).toContainText("auto exposure: ");
    await schools.getByRole("button", { name: /^180°/ }).click();
    await expect(setting).toHaveText(/^1\/100/);
  });
  await test.step("the shutter is moved along its window by keys and by dragging", async () => {
    const { shutter, setting, glass } = on(page);
    await expect(shutter).toHaveAttribute("aria-valuetext", /^1\/100 · 180°\. shutter target and stabiliser limit/);
    await shutter.focus();
    await page.keyboard.press("ArrowRight");
    await expect(setting).toHaveText(/^1\/120/);
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.press("ArrowLeft");
    await expect(setting).toHaveText(/^1\/80/);
    await page.keyboard.press("End");
    await expect(setting).toHaveText(/^1\/8000/);

    const box = await shutter.boundingBox();
    if (!box) throw new Error("no window");
    await page.mouse.move(box.x + 150, box.y + 60);
    await page.mouse.down();
    await page.mouse.move(box.x + 275, box.y + 60, { steps: 10 });
    await page.mouse.up();
    await expect(setting).toHaveText(/^1\/(400|500|640)/);
    await expect(glass).not.toHaveText("ND16");
    await edit(page, "Look");
    await expect(page.getByLabel("or your own")).toHaveValue(/^1\/(400|500|640)$/);
  });
});

test("gear of a drone is tried, and its rates are changed where they are seen", async ({ page, app }) => {
  await openShot(page, app, "Dive down the terraces");
  await test.step("gear that is only tried says so until it is dropped", async () => {
    const { trades, glass, rail, meter } = on(page);
    await edit(page, "Light");
    await page.getByText("The light changes during the shot").click();
    await meter.fill("EV 15.4");
    await takeTrade(page, /^a filter of 7 stops.*resolves it/);
    await expect(glass).toHaveText("new 7-stop filter");
    await expect(rail.getByRole("img")).toHaveAccessibleName(/new 7-stop filter cuts 7.0 stops/);
    await expect(on(page).saved).toHaveText(/^saved/);
    await page.reload();
    await expect(trades).toContainText("Previewing: a filter of 7 stops");
    await trades.getByRole("button", { name: "Back to my gear" }).click();
    await expect(trades).not.toContainText("Previewing");
    await expect(glass).toHaveText("Density 1.5");
  });
  await test.step("the pilot's rates live with the craft, and are changed where their curves are seen", async () => {
    await edit(page, "Motion");
    const flight = page.getByRole("group", { name: "Flight" });
    const pan = flight.getByRole("img", { name: /^Pan:/ });
    await expect(pan).toHaveAccessibleName(/Dashed: 360°\/s at full stick/);
    await expect(flight.getByRole("img", { name: /^Roll:/ })).toHaveAccessibleName(
      /even full stick has no excess blur/,
    );
    await expect(page.getByText("FPV cruise is what is usual with it")).toBeVisible();
    await flight.getByRole("button", { name: "Change its rates" }).click();
    const form = page.getByRole("form", { name: /^Edit the rig/ });
    const rates = form.getByRole("group", { name: "The pilot's rates" });
    await rates.getByLabel("Pan maximum, °/s").fill("90");
    await form.getByRole("button", { name: "Save" }).click();
    await expect(form.getByText(/^90: at least centreDegS, 120/)).toBeVisible();
    await rates.getByLabel("Pan centre, °/s").fill("40");
    await form.getByRole("button", { name: "Save" }).click();
    await expect(form).toHaveCount(0);
    await expect(pan).toHaveAccessibleName(/even full stick has no excess blur|beyond \d+ % of stick, \d\d°\/s/);
    await expect(flight.getByTestId("stick-pan")).toContainText("360°/s"); // the scale holds both curves
  });
});

test("the look and the light of a shot are changed, and survive what happens to the page", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  await test.step("a change of the frame rate moves the target and says so", async () => {
    const look = await edit(page, "Look");
    await look.getByRole("button", { name: "25", exact: true }).click();
    await expect(page.getByTestId("offered")).toContainText("At 25 fps the target is 1/50; at 50 it was 1/100.");
    await look.getByRole("button", { name: "Slow motion" }).click();
    await expect(page.getByTestId("delivered")).toContainText("Viewers see an angle of 180°");
    await look.getByRole("button", { name: "Real time (frames dropped)" }).click();
    await look.getByLabel("Shown at, fps").fill("12.5");
    await expect(page.getByTestId("delivered")).toContainText("Viewers see an angle of 90°");
  });
  await test.step("the simulated camera gives a reading that says it is one", async () => {
    const light = await edit(page, "Light");
    await light.getByRole("button", { name: "No camera at hand: use the simulated one" }).click();
    await light.getByLabel("light of the scene, EV").fill("12");
    await expect(page.getByTestId("simulated-shows")).toHaveText(/^1\/52\d.* · ISO 100$/);
    await light.getByRole("button", { name: "Take this reading" }).click();
    await expect(light.getByText("EV 12.0, ±0.2 · simulated")).toBeVisible();
    await light.getByLabel("shutter it chose").fill("1/500");
    await expect(light.getByText(/simulated$/)).toHaveCount(0);
  });
  await test.step("what is typed survives a reload and a lost server", async () => {
    await edit(page, "Light");
    await page.getByLabel("shutter it chose").fill("1/640");
    await page.reload(); // before the pause after which it is stored
    await expect(page.getByLabel("shutter it chose")).toHaveValue("1/640");
    await expect(on(page).saved).toHaveText(/^saved/);
    await app.stop();
    await page.getByLabel("shutter it chose").fill("1/800");
    await expect(page.getByLabel("shutter it chose")).toHaveValue("1/800");
    await app.start();
    await page.reload();
    await expect(page.getByLabel("shutter it chose")).toHaveValue("1/800");
    await expect(on(page).saved).toHaveText(/^saved/);
  });
});

test("what is in the picture, and how it moves, is said in numbers", async ({ page, app }) => {
  await openShot(page, app, "Dawn walk between the rows");
  await test.step("inside one frame nothing but aim helps, and it says what is lost", async () => {
    const words = page.getByTestId("contrast-words");
    await drawer(page, "Inside one frame");
    await expect(words).toContainText("highlights lose 0.0 stops");
    await page.getByRole("button", { name: "The subject" }).click();
    await expect(words).toContainText("highlights lose 1.1 stops");
    await expect(words).toContainText("ND darkens both ends alike and cannot change this");
    await expect(words).toContainText("a graduated filter of 1.1 stops");
    await page.getByLabel("Brightest, EV").fill("9");
    await expect(page.getByText("at least the subject's light").first()).toBeVisible();
    // The aim becomes the light of the shot, as if it had been read.
    await page.getByLabel("Brightest, EV").fill("EV 13.4");
    await page.getByRole("button", { name: "The bright part" }).click();
    await expect(words).toContainText("Expose for EV 13.4");
    await page.getByRole("button", { name: "Use this exposure" }).click();
    await edit(page, "Light");
    await expect(on(page).meter).toHaveValue("EV 13.4");
    await on(page).meter.fill("EV 10.6"); // as it was
  });
  await test.step("what moves and shakes is said in numbers, or that it is not known", async () => {
    const motion = await edit(page, "Motion");
    await expect(on(page).motion).toContainText("blur shows on what passes within");
    await motion.getByLabel("Subject speed, m/s").fill("0,2");
    await expect(on(page).motion).toContainText("7.0 px of motion blur at 1/50: crisp");
    await motion.getByLabel("Pan, °/s").fill("45");
    await expect(on(page).motion).toContainText("pan 45°/s; readable to 11°/s");
    await motion.getByLabel("or its shake, °/s").fill("900");
    await expect(on(page).state).toContainText("breaks");
    await motion.getByRole("button", { name: "50 Hz" }).click();
    await edit(page, "Look");
    await page.getByLabel("or your own").fill("1/125");
    await drawer(page, "Why");
    await expect(on(page).reasons).toContainText("flicker at");
    await edit(page, "Motion");
    await motion.getByLabel("Distance, m").fill("-3");
    await expect(motion.getByText(/a number from 0.001 to 1000000/)).toBeVisible();
  });
});

test("the frame pair shows the effect, steps, swaps and compares", async ({ page, app }) => {
  await page.emulateMedia({ reducedMotion: "no-preference" });
  await openShot(page, app, "Crates down the lane");
  const pair = page.getByRole("region", { name: "Preview" });
  await pair.scrollIntoViewIfNeeded();
  await expect(page.getByTestId("look-at-test")).toContainText("18 px of shake stay inside each frame");
  await expect(page.getByTestId("look-at-reference")).toContainText("they jump 75 px from frame to frame");
  await pair.getByRole("button", { name: "Step" }).click();
  await expect(pair.getByRole("button", { name: "Play" })).toBeVisible();
  const shown = pair.getByText(/^frame \d+ of 16/);
  const before = await shown.textContent();
  await pair.getByRole("button", { name: "Step" }).click();
  await expect(shown).not.toHaveText(before ?? "");
  const left = pair.locator("[data-testid^=loop-]").first();
  await expect(left).toHaveAttribute("data-testid", "loop-test");
  await pair.getByRole("button", { name: "Swap sides" }).click();
  await expect(left).toHaveAttribute("data-testid", "loop-reference");
  await pair.getByLabel("Against").selectOption({ label: "approach: 90°" });
  await expect(pair.getByTestId("loop-reference")).toContainText("90°, 1/240 at ISO 100");
  // The picture is drawn: it holds more than one colour.
  const colours = () =>
    pair
      .getByTestId("loop-test")
      .locator("canvas")
      .evaluate((node) => {
        const canvas = node as HTMLCanvasElement;
        const data = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height).data ?? [];
        const seen = new Set<number>();
        for (let i = 0; i < data.length; i += 4000)
          seen.add((data[i] ?? 0) * 65536 + (data[i + 1] ?? 0) * 256 + (data[i + 2] ?? 0));
        return seen.size;
      });
  await expect.poll(colours).toBeGreaterThan(10);
});

test.describe("from nothing", () => {
  test.use({ demo: false });
  test("what is missing is asked where it is needed, with why", async ({ page, app }) => {
    await page.goto(app.url);
    await page.getByLabel(/^The shot in one line/).fill("f2.8 1/1600 iso100 > 30 · walking · 4 8 16 32");
    await page.getByRole("button", { name: "Keep this" }).click();
    const missing = page.getByTestId("not-judged");
    await expect(missing).toContainText("the camera's field of view and frame width are not known");
    await missing.getByRole("button", { name: "Say field of view" }).click();
    await missing.getByRole("textbox", { name: "Field of view, °" }).fill("wide");
    await missing.getByRole("button", { name: "Save" }).click();
    await expect(missing.getByText("a number", { exact: true })).toBeVisible();
    await missing.getByRole("textbox", { name: "Field of view, °" }).fill("80");
    await missing.getByRole("button", { name: "Save" }).click();
    await missing.getByRole("button", { name: "Say stabiliser" }).click();
    await missing.getByRole("combobox", { name: "Stabiliser" }).selectOption("electronic");
    await missing.getByRole("button", { name: "Save" }).click();
    await expect(missing).toHaveCount(0);
    await expect(page.getByRole("region", { name: "Shutter window" })).toContainText(/stabiliser/i);
  });
});
