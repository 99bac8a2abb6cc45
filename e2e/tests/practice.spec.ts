import type { Page } from "@playwright/test";
import { type App, ableWithoutServer, atQuestions, expect, test, visit } from "../app.ts";

test.use({ serviceWorkers: "allow" });

/** What is asked, as the page asked the core for it. */
interface Asked {
  kind: string;
  grade: number;
  seed: number;
}

/** Lets only one kind be asked. */
const only = (page: Page, ...kinds: string[]) =>
  page.addInitScript((all) => {
    const set = { format: "pinhole-practice-set", version: 1, name: "x", kinds: all.map((kind) => ({ kind })) };
    if (!localStorage.getItem("pinhole.practiceSet")) localStorage.setItem("pinhole.practiceSet", JSON.stringify(set));
  }, kinds);

/** The right answer to what was asked last, as the command of the server marks it. */
async function listening(page: Page, app: App) {
  let last: Asked | undefined;
  await atQuestions(page, "question", (body) => {
    last = JSON.parse(body);
  });
  return {
    right: async (): Promise<number[]> => {
      const asked = last;
      if (!asked) throw new Error("nothing was asked");
      const { form, choices } = await (await page.request.post(`${app.url}/api/calc/question`, { data: asked })).json();
      const answer = form === "put-into" ? choices.map((_: string, i: number) => i) : [0];
      return (await (await page.request.post(`${app.url}/api/calc/mark`, { data: { ...asked, answer } })).json())
        .answer;
    },
  };
}

const answers = (page: Page) => page.getByRole("group", { name: "Answers" }).getByRole("button");

test("a session is answered to its end by the keyboard alone", async ({ page, app }) => {
  await only(page, "count", "order");
  await page.clock.install();
  const core = await listening(page, app);
  await page.goto(`${app.url}/practice`);
  await expect(page.getByTestId("due")).toContainText(/due/);
  const start = page.getByRole("button", { name: "Three minutes" });
  await start.focus();
  await page.keyboard.press("Enter");
  const told = page.getByTestId("told");
  for (let n = 0; n < 4; n++) {
    await expect(page.getByTestId("question")).toBeVisible();
    await expect(told).toHaveCount(0);
    await page.keyboard.press("s");
    await expect(page.getByRole("button", { name: "Sure", exact: true })).toHaveAttribute("aria-pressed", "true");
    if (n === 3) await page.clock.fastForward(181_000); // the question that is open is the last
    for (const choice of await core.right()) await page.keyboard.press(String(choice + 1));
    await expect(told.getByRole("status")).toHaveText("✓ Right");
    expect(await told.getByRole("listitem").count()).toBeGreaterThan(0);
    await page.keyboard.press("Enter"); // on Next, which has the focus
  }
  await expect(page.getByTestId("over")).toContainText("4 of 4 right.");
  await expect
    .poll(async () => {
      const { items } = await (await page.request.get(`${app.url}/api/practice-answers?limit=500`)).json();
      return items.filter((a: { confidence: string; right: boolean }) => a.confidence === "sure" && a.right).slice(-4)
        .length;
    })
    .toBe(4);
});

test("what was wrong comes back within the session, told by how far off it was", async ({ page, app }) => {
  await only(page, "count", "labels");
  const core = await listening(page, app);
  await page.clock.install();
  await page.goto(`${app.url}/practice`);
  await page.getByRole("button", { name: "Three minutes" }).click();
  await expect(page.getByTestId("question")).toBeVisible();
  const kind = page.locator("section h2").first();
  const first = await kind.innerText();
  const [right = 0] = await core.right();
  await answers(page)
    .nth(right === 0 ? 1 : right - 1)
    .click();
  await expect(page.getByTestId("told").getByRole("status")).toContainText(/✗ Wrong, off by [+−]1\.0 stops: /);
  await expect(answers(page).nth(right)).toContainText("this is right");
  await page.getByRole("button", { name: "Next" }).click();
  await expect(kind).not.toHaveText(first); // another one first
  await page.clock.fastForward(70_000);
  const [next = 0] = await core.right();
  await answers(page).nth(next).click();
  await page.getByRole("button", { name: "Next" }).click();
  await expect(kind).toHaveText(first);
  await page.getByRole("button", { name: "End the session" }).click();
  await expect(page.getByTestId("over")).toContainText("1 of 2 right.");
  await expect(page.getByTestId("over")).toContainText(first);
});

test("a mistake of the log brings its kind of question back", async ({ page, app }) => {
  await page.request.post(`${app.url}/api/records`, {
    data: {
      kind: "take",
      at: new Date(Date.now() - 60_000).toISOString(),
      from: "card",
      source: "real",
      name: "x",
      took: { kept: true, firstRight: false },
    },
  });
  await page.goto(`${app.url}/practice`);
  const row = page.getByTestId("kinds").getByRole("row", { name: /Filter from a reading/ });
  await expect(row).toContainText("from the log: the first filter was wrong");
  await expect(row.getByRole("cell").nth(1)).toHaveText("now");
  // A set is shared as a file, and opened; what is no set is refused by what is wrong with it.
  await page.getByRole("button", { name: "Polariser" }).click();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Share this set" }).click(),
  ]);
  const text = (await (await file.createReadStream()).toArray()).join("");
  expect(JSON.parse(text).kinds).toHaveLength(14);
  await page.getByRole("button", { name: "Everything" }).click();
  const open = (name: string, content: string) =>
    page
      .getByLabel("Set of questions", { exact: true })
      .setInputFiles({ name, mimeType: "", buffer: Buffer.from(content) });
  await open("bad.json", text.replace('"count"', '"magic"'));
  await expect(page.getByText(/kinds\[0\]\.kind is "magic": one of count, /)).toBeVisible();
  await open("set.json", text);
  await expect(page.getByRole("button", { name: "Polariser" })).toHaveAttribute("aria-pressed", "false");
});

test("practice goes on without the server, and what was answered reaches it later", async ({ page, app }) => {
  test.slow();
  await page.goto(`${app.url}/practice`);
  await expect(page.getByTestId("kinds")).toBeVisible();
  await ableWithoutServer(page);
  const before = (await (await page.request.get(`${app.url}/api/practice-answers?limit=500`)).json()).items.length;
  await app.stop();
  await page.reload();
  await expect(page.getByTestId("kinds")).toBeVisible({ timeout: 20_000 });
  await page.getByRole("button", { name: "Three minutes" }).click();
  for (let n = 0; n < 3; n++) {
    const order = page.getByText("Press them in their order.");
    await expect(page.getByTestId("question")).toBeVisible({ timeout: 20_000 });
    const count = (await order.isVisible()) ? await answers(page).count() : 1;
    for (let i = 0; i < count; i++) await answers(page).nth(i).click();
    await expect(page.getByTestId("told")).toBeVisible({ timeout: 20_000 });
    await page.getByRole("button", { name: "Next" }).click();
  }
  await page.getByRole("button", { name: "End the session" }).click();
  await expect(page.getByTestId("over")).toContainText("of 3 right");
  await page.reload(); // nothing is lost
  await expect(page.getByText("questions by pictures are left out")).toBeVisible();
  await app.start();
  await expect
    .poll(
      async () =>
        (await (await page.request.get(`${app.url}/api/practice-answers?limit=500`)).json()).items.length - before,
      { timeout: 30_000 },
    )
    .toBe(3);
});

test("the light is guessed before it is read, and the eye's trend is kept", async ({ page, app }) => {
  const { items: shots } = await (await page.request.get(`${app.url}/api/shots?limit=50`)).json();
  const walk = shots.find((s: { name: string }) => s.name === "Noon walk on the terrace");
  const guesses = async () => (await (await page.request.get(`${app.url}/api/practice`)).json()).guesses.length;
  const before = await guesses();
  await page.goto(`${app.url}/card/${walk.shootId}?shot=${walk.id}`);
  await page.getByRole("button", { name: "Re-meter" }).click();
  await page.getByRole("button", { name: "Guess first" }).click();
  await expect(page.getByTestId("expected")).toHaveCount(0); // nothing tells it
  const guess = page.getByTestId("guess");
  for (let i = 0; i < 4; i++) await guess.getByRole("button", { name: "Brighter" }).click();
  await expect(guess).toContainText("EV 14.0");
  await guess.getByRole("button", { name: "This is my guess" }).click();
  await page.getByRole("button", { name: "Light meter", exact: true }).click();
  await page.getByLabel(/EV 14.3, as it shows/).fill("EV 13.2");
  await expect(page.getByTestId("guessed")).toHaveText("Your guess, EV 14.0, was 0.8 stops too bright.");
  await page.getByRole("button", { name: /Correct the forecast|Save the reading/ }).click();
  await expect.poll(guesses).toBe(before + 1);
  await visit(page, app, "/practice");
  await expect(page.getByTestId("eye")).toContainText(/Your eye: ±\d\.\d stops, from ±\d\.\d in /);
});

test("a question by pictures is answered with its loops unnamed, and told with them", async ({ page, app }) => {
  await only(page, "with-filter");
  await page.emulateMedia({ reducedMotion: "reduce" });
  await page.goto(`${app.url}/practice`);
  await page.getByRole("button", { name: "Three minutes" }).click();
  const question = page.getByTestId("question");
  await expect(question.getByRole("img", { name: "Loop A" })).toBeVisible();
  await expect(question).not.toContainText(/no filter|px/);
  await expect(question.getByRole("button", { name: "Play" })).toBeVisible(); // it stands still, and is stepped
  await answers(page).first().click();
  await expect(page.getByTestId("told")).toContainText("The filter lets the shutter stay open");
  await expect(question).toContainText("auto exposure, no filter");
});

test("own filters are asked about and told by their names", async ({ page, app }) => {
  await only(page, "filter");
  await page.goto(`${app.url}/practice`);
  await page.getByRole("button", { name: "Three minutes" }).click();
  const question = page.getByTestId("question");
  await expect(question).toBeVisible();
  // One of the cameras of the demo has too few that are apart: it is asked about a usual kit then.
  for (let n = 0; n < 30 && !(await question.innerText()).includes("Your camera"); n++) {
    await answers(page).first().click();
    await page.getByRole("button", { name: "Next" }).click();
    await expect(page.getByTestId("told")).toHaveCount(0);
    await expect(question).toBeVisible();
  }
  await expect(question).toContainText("Your camera");
  await answers(page).first().click();
  await expect(page.getByTestId("told").getByTestId("stop-rail")).toContainText("ND");
  await expect(question).not.toContainText(/[0-9a-f]{8}-[0-9a-f]{4}/);
});
