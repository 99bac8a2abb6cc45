import { mkdtemp, rm } from "node:fs/promises";
import { join } from "node:path";
import { App, expect, ROOM, test, visit } from "../app.ts";

test("what a season taught is told, an outlier is struck and comes back, the log can be left aside", async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/log`);
  const taught = page.getByTestId("taught");
  const nd8 = taught.getByTestId("belief").filter({ hasText: "ND8 (0.9)" });
  await expect(nd8).toContainText(/3\.\d\d stops ±0\.\d\d/);
  await expect(taught.getByTestId("belief").filter({ hasText: "Hand meter" })).toContainText(/\+0\.\d\d ±0\.\d\d/);
  const doubtful = taught.getByRole("region", { name: "Doubtful" });
  await expect(doubtful).toContainText(/through ND8 \(0\.9\).*off by \+[345]\.\d stops/);
  await doubtful.getByRole("button", { name: "Strike" }).first().click();
  await expect(doubtful).not.toContainText(/off by \+[345]\.\d stops/);
  await page.keyboard.press("Control+z");
  await expect(doubtful).toContainText(/off by \+[345]\.\d stops/);
  // The kit counts with it, and without it where that is wished.
  await visit(page, app, "/kit");
  await page.getByRole("searchbox").first().or(page.getByLabel("Camera").first()).waitFor();
  await visit(page, app, "/log");
  await taught.getByText("Answers are given with what the log teaches").click();
  await expect.poll(async () => (await (await page.request.get(`${app.url}/api/learned`)).json()).used).toBe(false);
  const shown = async () => {
    const { items } = await (await page.request.get(`${app.url}/api/filters?limit=200`)).json();
    return items.find((f: { label: string }) => f.label === "ND8 (0.9)");
  };
  expect((await shown()).learned).toBeUndefined();
  // Pressed three times in a row it is on again, as it looks at once.
  const isUsed = taught.getByRole("checkbox", { name: /^Answers are given with what the log teaches/ });
  for (const used of [true, false, true]) {
    await isUsed.click();
    await expect(isUsed).toBeChecked({ checked: used });
  }
  await expect.poll(async () => (await shown()).learned?.records).toBeGreaterThan(10);
});

test("records are sought, struck with a name, written out, and a place is forgotten", async ({ page, app }) => {
  await page.goto(`${app.url}/log?view=records`);
  const records = page.getByTestId("record");
  await expect(records.first()).toBeVisible();
  await page.getByLabel("Search place, sky, filter, camera, date").fill("quay overcast ND64");
  await expect(records.first()).toContainText("ND64");
  for (const line of await records.all()) await expect(line).toContainText("ND64");
  await records.first().getByRole("button", { name: "Strike" }).click();
  await expect(records.first()).toContainText("struck by this desk");
  await records.first().getByRole("button", { name: "Count again" }).click();
  await expect(records.first()).not.toContainText("struck by");
  // A mistyped one is set right.
  const seen = records.filter({ hasText: "on auto" }).first();
  await seen.getByRole("button", { name: "Correct" }).click();
  await seen.getByLabel("EV seen").fill("7.77");
  await seen.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Corrected")).toBeVisible();
  await expect(page.getByTestId("record").filter({ hasText: "EV 7.8" }).first()).toBeVisible();
  // A day of the calendar shows what happened on it.
  await page.getByLabel("Search place, sky, filter, camera, date").fill("");
  await page
    .getByTestId("calendar")
    .getByRole("button", { name: /: \d+ records/ })
    .first()
    .click();
  const all = await records.count();
  expect(all).toBeGreaterThan(0);
  expect(all).toBeLessThan(12);
  const [csv] = await Promise.all([page.waitForEvent("download"), page.getByRole("button", { name: "CSV" }).click()]);
  expect(csv.suggestedFilename()).toBe("pinhole-records.csv");
  page.on("dialog", (dialog) => dialog.accept());
  await page.getByRole("button", { name: "What it taught" }).click();
  await page.getByRole("button", { name: "Forget Cellar lane" }).click();
  await expect(page.getByText("Cellar lane is forgotten")).toBeVisible();
  await expect(page.getByTestId("belief").filter({ hasText: "Cellar lane" })).toHaveCount(0);
});

test("a shutter test is planned, judged step by step, and its limit is used", async ({ page, app }) => {
  await page.goto(`${app.url}/measure/steps`);
  await page.getByLabel("With the camera, light and movement of").selectOption({ label: "Crates down the lane" });
  const steps = page.getByTestId("steps");
  await expect(steps).toContainText("Move along the same path");
  const list = steps.getByRole("list", { name: "Steps" }).getByRole("listitem");
  const n = await list.count();
  expect(n).toBeGreaterThan(4);
  const before = await page.getByTestId("limit").innerText();
  for (let i = 0; i < n; i++) {
    await expect(list.nth(i)).toHaveAttribute("aria-current", "step");
    await steps
      .getByRole("button", { name: i < 2 ? "Good" : i < 4 ? "Usable" : "Bad: it ghosts", exact: true })
      .click();
  }
  await expect(steps).toContainText("All steps are judged.");
  const limit = page.getByTestId("limit");
  await expect(limit).toContainText(`by ${n} takes`);
  expect(before).toContain("Computed, before any test");
  // The judge has it: the camera of the shot carries the limit.
  const { items: shots } = await (await page.request.get(`${app.url}/api/shots?limit=50`)).json();
  const crates = shots.find((s: { name: string }) => s.name === "Crates down the lane");
  const bench = await (await page.request.get(`${app.url}/api/cameras/${crates.cameraId}/bench`)).json();
  expect(bench.camera.profile.trialS).toBeGreaterThan(0);
});

test("what a day brought is read in the log: planned beside done, with the light", async ({ page, app }) => {
  const get = async (path: string) => (await page.request.get(app.url + path)).json();
  const { items: shoots } = await get("/api/shoots?limit=10");
  const { items: shots } = await get("/api/shots?limit=50");
  const noon = shots.find((s: { name: string }) => s.name === "Noon walk on the terrace");
  for (const [i, [grade, why]] of [
    ["bad", "bright"],
    ["good", ""],
  ].entries())
    await page.request.put(`${app.url}/api/shoots/${shoots[0].id}/log/take-of-noon-${i}`, {
      data: {
        kind: "outcome",
        at: "2025-09-20T12:50:00-01:00",
        shotId: noon.id,
        words: grade,
        outcome: { grade, ...(why && { why }) },
      },
    });
  await page.goto(`${app.url}/log?view=cards`);
  const row = page.getByTestId("story").getByRole("row", { name: /Noon walk on the terrace/ });
  await expect(row).toContainText(/binned, bright with ND8 \+ ND32; good with ND8 \+ ND32/);
  await page.getByRole("button", { name: "Records" }).click();
  await page.getByLabel("Search place, sky, filter, camera, date").fill("noon walk binned");
  await expect(page.getByTestId("record").first()).toContainText("binned, bright through ND8 + ND32");
});

test("new firmware is learned anew, and a filter that is learned changes the answer of its shot", async ({
  page,
  app,
}) => {
  const get = async (path: string) => (await page.request.get(app.url + path)).json();
  const spread = async () =>
    (await get("/api/learned")).instruments.find((i: { id: string }) => i.id.endsWith(" auto")).sdStops;
  const before = await spread();
  await page.goto(`${app.url}/log`);
  const choice = page.getByLabel("New firmware, or a repair, of");
  await choice.selectOption({ index: 1 });
  await page.getByRole("button", { name: "Learn it anew" }).click();
  await expect(page.getByText("It is learned anew from now on")).toBeVisible();
  await expect.poll(spread).toBeGreaterThan(before + 0.1);
  // A shot on the phone through its ND8: darker than its ring says.
  const { items: shots } = await get("/api/shots?limit=50");
  const press = shots.find((s: { name: string }) => s.name.startsWith("Press cellar"));
  const bench = await get(`/api/cameras/${press.cameraId}/bench`);
  const nd8 = bench.kit.find((k: { id: string; stops: number }) => k.stops === 3);
  expect(nd8.measuredStops).toBeGreaterThan(3.05);
  const answerOf = async (kit: unknown) =>
    (
      await (
        await page.request.post(`${app.url}/api/calc/shot`, {
          data: { ...press.answer.request, kit, placed: [nd8.id], light: { kind: "meter", at: { text: "EV 9" } } },
        })
      ).json()
    ).chosen.errorStops;
  const learned = await answerOf(bench.kit);
  await page.request.post(`${app.url}/api/learned/use`, { data: { used: false } });
  const without = await answerOf((await get(`/api/cameras/${press.cameraId}/bench`)).kit);
  expect(without - learned).toBeCloseTo(nd8.measuredStops - 3, 3);
});

test("a day is lived on the field card and read in the log", async ({ page, app }) => {
  const get = async (path: string) => (await page.request.get(app.url + path)).json();
  const { items: shots } = await get("/api/shots?limit=50");
  const walk = shots.find((s: { name: string }) => s.name === "Noon walk on the terrace");
  // It is shot now, at whatever hour: in the light that was typed.
  const { shootId, cameraId, name, look, light, choices, scene, startsAt } = walk;
  await page.request.put(`${app.url}/api/shots/${walk.id}?version=${walk.version}`, {
    data: { shootId, cameraId, name, look, light, choices, scene, startsAt },
  });
  const before = (await get("/api/learned")).records;
  await page.goto(`${app.url}/card/${walk.shootId}?shot=${walk.id}`);
  const turn = page.getByTestId("turn");
  await expect(turn).toContainText("Noon walk on the terrace");
  // Filters go on, step by step.
  await page.getByRole("button", { name: /^Checks 0/ }).click();
  const checks = page.getByRole("dialog");
  await checks.getByRole("checkbox", { name: /^ND.* on: / }).click();
  await checks.getByRole("checkbox", { name: /^Pull test/ }).click();
  await page.keyboard.press("Escape");
  // The light is read through them.
  await page.getByRole("button", { name: "Re-meter" }).click();
  await page.getByRole("button", { name: "Auto exposure", exact: true }).click();
  await page.getByLabel("or as it shows").fill("1/60");
  await page.getByRole("button", { name: /Correct the forecast|Save the reading/ }).click();
  // A take is judged by one thumb, with a word of why; then the next.
  await page.getByRole("region", { name: "Do" }).getByRole("button", { name: "Log" }).click();
  const grade = page.getByTestId("grade");
  await grade.getByRole("button", { name: "Bad", exact: true }).click();
  await grade.getByRole("button", { name: "ghosting" }).click();
  await expect(page.getByTestId("log")).toContainText("bad (ghosting)");
  await grade.getByRole("button", { name: "Good", exact: true }).click();
  await expect(page.getByTestId("log")).toContainText("Noon walk on the terrace: good");
  await expect.poll(async () => (await get("/api/learned")).taste.binned.ghost).toBe(1);
  await expect.poll(async () => (await get("/api/learned")).records).toBe(before + 3);
  // All of it stands in the log, with what it came from, and is found by its words.
  await visit(page, app, "/log?view=records");
  const found = page.getByTestId("record");
  const seek = async (words: string, kind: string) => {
    await page.getByLabel("Kind").selectOption({ label: kind });
    await page.getByLabel("Search place, sky, filter, camera, date").fill(words);
  };
  await seek("noon walk put on", "steps, swaps, notes");
  await expect(found).toHaveText([/put on, Row walker/]);
  await seek("noon walk pull test", "steps, swaps, notes");
  await expect(found).toHaveText([/done: Pull test/]);
  await seek("noon walk on auto", "lights seen");
  await expect(found).toHaveText([/EV .* through .* on auto, Row walker/]);
  await found.getByRole("button", { name: "Doubt" }).click();
  await expect(found).toContainText("doubted by this desk");
  await seek("noon walk ghost", "takes");
  await expect(found).toHaveText([/binned, ghosting through .*/]);
  await found.getByRole("button", { name: "Strike" }).click();
  await expect.poll(async () => (await get("/api/learned")).taste.binned.ghost).toBeUndefined();
});

test("a suggestion is taken by the shots, another is declined for good", async ({ page, app }) => {
  const get = async (path: string) => (await page.request.get(app.url + path)).json();
  const takes = async (school: string, activity: string) => {
    for (let i = 0; i < 30; i++)
      await page.request.post(`${app.url}/api/records`, {
        data: {
          kind: "take",
          at: new Date(Date.now() - i * 60_000).toISOString(),
          from: "card",
          source: "real",
          name: "x",
          took: { kept: true, grade: "good", activity, school, errorStops: 0.6 },
        },
      });
  };
  await takes("stabiliser-first", "walk");
  await page.goto(`${app.url}/log`);
  const suggested = page.getByTestId("suggestion");
  const school = suggested.filter({ hasText: "Walk" });
  await expect(school).toContainText("takes that were kept were shot by the stabiliser first");
  await school.getByRole("button", { name: "Use it" }).click();
  await expect(page.getByText(/Counts for new shots; \d+ shots? (is|are) changed/)).toBeVisible();
  await expect(school).toHaveCount(0);
  const { items: shots } = await get("/api/shots?limit=50");
  const walks = shots.filter((s: { scene?: { activity?: string } }) => s.scene?.activity === "walk");
  expect(walks.length).toBeGreaterThan(0);
  for (const s of walks) expect(s.scene.school, s.name).toBe("stabiliser-first");
  const brighter = suggested.filter({ hasText: "brighter than your tolerance" });
  await brighter.getByRole("button", { name: "No, never" }).click();
  await expect(brighter).toHaveCount(0);
  await page.reload();
  await expect(page.getByTestId("taught")).toBeVisible();
  await expect(brighter).toHaveCount(0);
});

test("what was learned goes out with the archive, and is known where that comes in", async ({ page, app }) => {
  await page.goto(`${app.url}/log`);
  const nd8 = page.getByTestId("belief").filter({ hasText: "ND8 (0.9)" });
  await expect(nd8).toContainText(/3\.\d\d stops/);
  const known = await nd8.innerText();
  await page.getByRole("button", { name: "Backups and bin" }).click();
  const sheet = page.getByRole("dialog", { name: "Backups and bin" });
  const [download] = await Promise.all([
    page.waitForEvent("download"),
    sheet.getByRole("link", { name: "Export everything" }).click(),
  ]);
  const folder = await mkdtemp(join(ROOM, "pinhole e2e "));
  const other = new App(folder, []);
  try {
    await other.start();
    await page.goto(`${other.url}/log`);
    await page.getByRole("button", { name: "Backups and bin" }).click();
    await sheet.getByLabel("Archive file").setInputFiles(await download.path());
    await sheet.getByRole("group", { name: "Import" }).getByRole("button", { name: "Bring it in" }).click();
    await expect(page.getByText("Brought in", { exact: true })).toBeVisible();
    await page.keyboard.press("Escape");
    await expect(nd8).toHaveText(known.replace(/\n/g, ""));
    // Nobody's name is in it.
    const text = await (await page.request.get(`${other.url}/api/records?limit=200`)).text();
    expect(text).not.toMatch(/"(person|author|user|email)"/);
  } finally {
    await other.stop();
    await rm(folder, { recursive: true });
  }
});
