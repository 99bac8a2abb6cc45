import { drawer, edit, expect, on, openShot, test } from "../app.ts";

test("the light of a shot in all its forms", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  await test.step("the light can be entered in every form people use", async () => {
    const note = await edit(page, "Light");
    // The camera's automatic, with glass on: EV 13.9 at 1/2000, and 2.94 stops of glass.
    await page.getByRole("group", { name: "filters that were on" }).getByRole("button", { name: "ND8" }).click();
    await expect(note.getByText("EV 16.9, ±0.2")).toBeVisible();
    // Another form starts from the same light.
    await page.getByRole("button", { name: "Lux", exact: true }).click();
    await expect(note.getByText(/EV 16\.[89], ±/)).toBeVisible();
    await page.getByLabel("lux at the subject").fill("20 klx");
    await expect(note.getByText("EV 13.0, ±0.2")).toBeVisible();
    await page.getByRole("button", { name: "Exposure bias" }).click();
    await page.getByLabel("bias shown").fill("+1");
    await page.getByLabel("locked shutter").fill("1/100");
    await expect(note.getByText(/^EV 1\d\.\d, ±/)).toBeVisible();
    await page.getByRole("button", { name: "Light meter", exact: true }).click();
    await on(page).meter.fill("EV 14.3");
    await expect(note.getByText("EV 14.3, ±0.2")).toBeVisible();
    await expect(on(page).saved).toHaveText(/^saved \d/);
    await page.reload();
    await expect(on(page).meter).toHaveValue("EV 14.3");
  });
  await test.step("a sky that is seen has its filter, its uncertainty and a spare", async () => {
    const light = await edit(page, "Light");
    await light.getByRole("button", { name: "Sky", exact: true }).click();
    await light.getByRole("button", { name: "clouds with gaps" }).click();
    await expect(light.getByText(/^EV \d+\.\d, ±\d\.\d$/)).toBeVisible();
    await expect(page.getByTestId("spares")).toContainText(/Spare: .* if it is (brighter|darker)/);
  });
  await test.step("a range of light says how the camera rides it", async () => {
    await edit(page, "Light");
    await page.getByRole("button", { name: "Light meter", exact: true }).click();
    await page.getByText("The light changes during the shot").click();
    await page.getByLabel("Brightest: what the meter says").fill("EV 13.7");
    await page.getByLabel("Darkest: what the meter says").fill("EV 11.5");
    await expect(on(page).setting).toHaveText(/^1\/100 · ISO \d+ to \d+/);
    await drawer(page, "Why");
    await expect(on(page).reasons).toContainText("auto ISO");
  });
});

test("glass is put on by hand, and what the exposure makes of it is told", async ({ page, app }) => {
  await openShot(page, app, "Crates down the lane");
  await test.step("glass is put on by number, by press and by dragging", async () => {
    const { glass, rail } = on(page);
    await expect(glass).toHaveText("ND16");
    await page.keyboard.press("3");
    await expect(glass).toHaveText("ND32");
    await expect(page.getByText("You put on")).toBeVisible();
    await page.keyboard.press("1");
    await expect(glass).toHaveText("ND32 + ND8");
    await expect(page.getByTestId("not-judged")).toContainText("2 layers are on where 1 is reckoned with");
    await page.keyboard.press("3");
    await expect(glass).toHaveText("ND8");
    await page.keyboard.press("0");
    await expect(glass).toHaveText("ND16");
    await page.getByRole("button", { name: "1 ND8" }).click();
    await expect(glass).toHaveText("ND8");
    await expect(rail.getByRole("img")).toHaveAccessibleName(/ND8 cuts 2.9 stops.*Error \+1\.4 stops/);

    const chip = await page.getByRole("button", { name: "3 ND32" }).boundingBox();
    const target = await rail.boundingBox();
    if (!chip || !target) throw new Error("nothing to drag");
    await page.mouse.move(chip.x + 20, chip.y + 20);
    await page.mouse.down();
    await page.mouse.move(target.x + 200, target.y + 80, { steps: 8 });
    await page.mouse.up();
    await expect(glass).toHaveText("ND8 + ND32");
    await drawer(page, "Other filters");
    await on(page).others.getByRole("button", { name: "ND16" }).first().click();
    await expect(glass).toHaveText("ND16");
  });
  await test.step("where the exposure takes the shutter, all is told of that shutter", async () => {
    await page.keyboard.press("0");
    await edit(page, "Light");
    await page.getByRole("button", { name: "Light meter", exact: true }).click();
    await on(page).meter.fill("EV 14.9");
    await expect(on(page).setting).toHaveText(/^1\/100 · /);
    await on(page).meter.blur();
    await page.keyboard.press("1");
    await expect(on(page).glass).toHaveText("ND8");
    await expect(on(page).setting).toHaveText(/^1\/500 · /);
    await expect(on(page).error).toHaveText(/^0\.0 stops error, ±0\.2, \+2\.3 before a faster shutter$/);
    await expect(on(page).shutter).toHaveAttribute("aria-valuetext", /^1\/100 · 180° → 1\/500\./);
    await edit(page, "Motion");
    await expect(on(page).motion).toContainText("motion blur at 1/500");
  });
});

test("the rail is drawn to scale, in the darkest shot too, which says what it lacks", async ({ page, app }) => {
  await test.step("the rail is drawn to scale", async () => {
    await openShot(page, app, "Pond from above");
    await page.keyboard.press("3");
    await expect(on(page).glass).toHaveText("ND32/PL + ND64");
    const widths = await on(page)
      .rail.locator("svg rect[rx='4']")
      .evaluateAll((rects) => rects.map((r) => Number(r.getAttribute("width"))));
    // The polariser's 6.5 stops are put on first; ND64, measured 5.83 stops, goes outside it.
    const [outer = 0, inner = 0] = widths;
    expect(inner / outer).toBeCloseTo(6.5 / 5.83, 1);
    // The light of the darkest shot is at the edge: its label stays inside the drawing.
    await openShot(page, app, "Lantern supper");
    const label = on(page).rail.getByText("light EV 4.0");
    const [text, drawing] = await Promise.all([label.boundingBox(), on(page).rail.boundingBox()]);
    expect(text?.x).toBeGreaterThanOrEqual(drawing?.x ?? 0);
  });
  await test.step("where light is missing it says how much, and what would help in order", async () => {
    await edit(page, "Light");
    await page.getByLabel("lux at the subject").fill("2");
    const short = page.getByTestId("short");
    await expect(short).toContainText("3.3 stops short of light. What would help, the cheapest first:");
    await expect(short.getByRole("listitem").first()).toContainText("1/25, 360°");
    await expect(short.getByRole("listitem").last()).toContainText("ISO 15749");
  });
});

test("filters are chosen for a shot, and light without a meter", async ({ page, app }) => {
  await openShot(page, app, "Dawn walk between the rows");
  await test.step("filters asked for, and those that are always on, are in every answer", async () => {
    await edit(page, "Filters");
    await drawer(page, "Other filters");
    await page
      .getByRole("group", { name: "mist 1/4" })
      .or(page.getByLabel("mist 1/4"))
      .last()
      .selectOption("asked for");
    await expect(on(page).glass).toHaveText("mist 1/4 + ND8");
    // What else there is follows the verdict.
    await expect
      .poll(async () => (await on(page).others.getByRole("button").allInnerTexts()).map((o) => o.includes("mist 1/4")))
      .not.toContain(false);
    await page.getByLabel("ND8", { exact: true }).selectOption("always on");
    await drawer(page, "Why");
    await expect(on(page).reasons).toContainText("always-on filters included");
    for (const label of ["mist 1/4", "ND8"]) await page.getByLabel(label, { exact: true }).selectOption("as needed");
  });
  await test.step("without a meter: put on, look, say, until it is settled", async () => {
    await edit(page, "Light");
    await page.getByRole("button", { name: "By eye" }).click();
    // A day outdoors is where looking begins, so that the first look is through glass.
    await expect(on(page).glass).toHaveText("ND32");
    await page.getByRole("button", { name: "Too bright" }).click();
    await expect(on(page).glass).toHaveText("ND8 + ND32");
    await page.getByRole("button", { name: "Right", exact: true }).click();
    await expect(page.getByText("Settled by looking: put on")).toBeVisible();
    await expect(on(page).glass).toHaveText("ND8 + ND32");
    await page.getByRole("button", { name: "Take back the last look" }).click();
    await expect(page.getByRole("button", { name: "Too bright" })).toBeVisible();
  });
});

test("the kit, the frame rate and the plan of a shot", async ({ page, app }) => {
  await openShot(page, app, "Dawn walk between the rows");
  await test.step("a badly written label is left out until its owner says what it means", async () => {
    await expect(page.getByText("ND 2.0 is left out: Is it density 2.0 or factor 2?")).toBeVisible();
    await page.getByRole("link", { name: "Kit" }).click();
    await page.getByRole("button", { name: "factor 2" }).click();
    await expect(page.getByRole("button", { name: "factor 2" })).toHaveCount(0);
    await page.getByRole("link", { name: "Shot", exact: true }).click();
    await expect(
      page.getByRole("group", { name: "Filters to put on" }).getByRole("button", { name: /ND 2\.0/ }),
    ).toBeVisible();
  });
  await test.step("frame rate and target move the shutter, and the camera's own step is explained", async () => {
    const look = await edit(page, "Look");
    await look.getByRole("button", { name: "24", exact: true }).click();
    await expect(look.getByText("Wanted 1/48.0, the camera offers 1/50 (173°): −0.1 stops.")).toBeVisible();
    await look.getByRole("button", { name: "90°" }).click();
    await expect(on(page).setting).toHaveText(/^1\/100/);
    await look.getByLabel("or your own").fill("1/80");
    await expect(on(page).setting).toHaveText(/^1\/80/);
  });
  await test.step("what is typed stands beside the light of the day, which is named", async () => {
    await drawer(page, "In the plan");
    const plan = page.getByTestId("in-the-plan");
    await expect(plan).toContainText("The plan of the day goes by another light");
    await expect(plan).toContainText("forecast, clear sky");
    await expect(plan).toContainText("stops against the one that is used");
    await expect(page.getByText("Put on, for EV 10.6 as typed")).toBeVisible();
    // What is typed anew stands beside it as soon as it is stored.
    await edit(page, "Light");
    await on(page).meter.fill("EV 12.0");
    await expect(plan.getByTestId("lights")).toContainText("EV 12.0 ±0.2");
  });
});

test("the list, the screen of each shot and the plan of the day say the same of it", async ({ page, app }) => {
  await page.goto(`${app.url}/shoot`);
  const rows = page.getByRole("link").filter({ has: page.getByTestId("lights") });
  await expect(rows).toHaveCount(7);
  const said: { lights: string; glass: string; words: string; state: string }[] = [];
  for (let i = 0; i < 7; i++) {
    const lights = await rows.nth(i).getByTestId("lights").innerText();
    const told = (await rows.nth(i).innerText()).split("\n").find((line) => / · \S+: /.test(line)) ?? "";
    const [state = "", words = ""] = told.split(" · ");
    await rows.nth(i).click();
    await drawer(page, "In the plan");
    const plan = page.getByTestId("in-the-plan");
    await expect(plan.getByTestId("lights")).toHaveText(lights.replaceAll("\n", ""));
    await expect(plan).toContainText(words);
    await expect(plan).toContainText(state);
    await expect(page.getByTestId("plan-line")).toContainText(state);
    said.push({ lights, glass: words.split(":")[0] ?? "", words, state });
    await page.goBack();
  }
  await page.getByRole("link", { name: "Plan the day" }).click();
  const days = page.getByTestId("plan").locator("> *");
  for (const [i, { lights, words }] of said.entries()) {
    await expect(days.nth(i)).toContainText(words);
    await expect(days.nth(i).getByTestId("lights")).toHaveText(lights.replaceAll("\n", ""));
  }
});
