import { readFile } from "node:fs/promises";
import type { Page } from "@playwright/test";
import { expect, test } from "../app.ts";

interface Term {
  use: string;
  not: string[];
  /** Words that nothing on a screen says; patterns. */
  words?: string[];
}

/** All that a page says: its text, and what is said to those who do not see it. */
const saidBy = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const said = [document.body.innerText];
    for (const name of ["aria-label", "title", "placeholder"])
      for (const e of document.querySelectorAll(`[${name}]`))
        if (e.checkVisibility()) said.push(e.getAttribute(name) ?? "");
    for (const e of document.querySelectorAll("svg title, svg text, option")) said.push(e.textContent ?? "");
    return said.flatMap((text) => text.split("\n"));
  });

/** Goes to an address within the page, as its links do: only the first place is opened from nothing. */
const go = (page: Page, address: string): Promise<void> =>
  page.evaluate((to) => {
    history.pushState(null, "", to);
    dispatchEvent(new PopStateEvent("popstate"));
  }, address);

test("every place says the terms, and none of the words they took the place of", async ({ page, app }) => {
  test.setTimeout(180_000);
  const terms = JSON.parse(await readFile("../docs/terms.json", "utf8")) as Term[];
  const wrong = terms.flatMap(({ use, not, words = [] }) =>
    [...not.map((text) => text.replace(/[.*+?^${}()|[\]\\]/g, "\\$&")), ...words].map((word) => ({
      use,
      pattern: new RegExp(`\\b${word}\\b`, "i"),
    })),
  );
  const faults = new Set<string>();
  let lines = 0;
  const read = async (where: string) => {
    for (const said of await saidBy(page)) {
      const line = said.replaceAll("pinhole serve", "the command"); // what is typed is not said
      lines += 1;
      for (const { use, pattern } of wrong)
        if (pattern.test(line)) faults.add(`${where}: “${line.trim()}”: use ${use}`);
    }
  };
  const unfold = () =>
    page.evaluate(() => {
      for (const details of document.querySelectorAll("details")) details.open = true;
    });
  const leave = async () => {
    await page.keyboard.press("Escape");
    await expect(page.getByRole("dialog")).toBeHidden();
  };
  await page.goto(`${app.url}/shoot`);
  await expect(page.getByTestId("lights").first()).toBeVisible();
  await read("Shoots");
  const addressOf = (name: string) =>
    page.getByRole("link", { name }).evaluate((a) => (a as HTMLAnchorElement).pathname);
  // One that breaks, one by looking, one under lights: between them every kind of verdict.
  const shots = [
    await addressOf("Crates down the lane"),
    await addressOf("Dive down the terraces"),
    await addressOf("Press cellar, an hour in a minute"),
  ];
  for (const shot of shots) {
    await go(page, "/shoot");
    await expect(page.getByTestId("lights").first()).toBeVisible();
    await go(page, shot);
    await expect(page.getByTestId("state")).toBeVisible();
    await unfold();
    await read(shot);
  }
  for (const form of ["Camera", "Light", "Look", "Motion", "Filters", "Preferences"]) {
    await go(page, `?edit=${{ Filters: "kit", Preferences: "taste" }[form] ?? form.toLowerCase()}`);
    await expect(page.getByRole("region", { name: form, exact: true })).toBeVisible();
    await read(`form ${form}`);
  }
  await go(page, "/shoot");
  await page.getByRole("link", { name: "Plan the day" }).click();
  await expect(page.getByTestId("plan")).toContainText("Noon walk");
  await unfold();
  for (const way of ["Light meter", "Auto exposure", "Sky", "Photo", "Simulated meter"]) {
    await page.getByRole("group", { name: "Read by" }).getByRole("button", { name: way, exact: true }).click();
    await read(`Day, ${way}`);
  }
  // Each by its last words, which are there when the rest is.
  for (const [place, shows] of [
    ["kit", "Export as JSON"],
    ["kit/fit", "may come off"],
    ["kit/coverage", "Compare it"],
    ["kit/sets", "possible range"],
    ["kit/labels", "Print labels"],
    ["measure", "Filter on, stops"],
    ["log", "Are the ± true"],
    ["practice", "Open a set"],
  ] as const) {
    await go(page, `/${place}`);
    await expect(page.locator("main")).toContainText(shows);
    await unfold();
    await read(place);
  }
  // What has no data to wait for is there with the button that chose it.
  for (const [place, group] of [
    ["measure", "What is measured"],
    ["log", "What is shown"],
  ] as const) {
    await go(page, `/${place}`);
    for (const choice of await page.getByRole("group", { name: group }).getByRole("button").all()) {
      await choice.click();
      await expect(choice).toHaveAttribute("aria-pressed", "true");
      await expect(page.locator("main [aria-busy=true]")).toHaveCount(0);
      await unfold();
      await read(`${place}, ${await choice.innerText()}`);
    }
  }
  await go(page, "/kit/fit");
  await page.getByRole("button", { name: "ND16 B2 on Crate trailer (action camera), in its frame: tested" }).click();
  await expect(page.getByRole("dialog")).toContainText("Save this test");
  await read("Fit, a filter on a rig");
  await leave();
  await go(page, "/kit");
  await page.getByRole("button", { name: "Edit ND8" }).first().click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await read("Kit, a filter");
  await leave();
  for (const form of [/^Edit Row walker/, /^Rig in the hand/, /^Add a rig/, "Add a camera"]) {
    await page.getByRole("button", { name: form }).first().click();
    const end = page.getByRole("button", { name: "Cancel" });
    await expect(end).toBeVisible();
    await unfold();
    await read(`Kit, ${form}`);
    await end.click();
  }
  for (const sheet of ["Re-meter", "Checks", "Goes wrong", "Log"]) {
    await go(page, "/card");
    await page
      .getByRole("region", { name: "Do" })
      .getByRole("button", { name: new RegExp(`^${sheet}`) })
      .click();
    await expect(page.getByRole("dialog")).toBeVisible();
    await read(`Field card, ${sheet}`);
    if (sheet === "Goes wrong") {
      for (const drill of ["Light changed", "Flicker", "Ghosting", "Fogging"]) {
        await page.getByRole("dialog").getByRole("button", { name: drill }).click();
        await read(`Field card, ${drill}`);
      }
    }
    await leave();
  }
  for (const [name, shows] of [
    ["On the phone", "passphrase"],
    ["Backups and bin", "Bin"],
    ["Keyboard shortcuts", "quick line"],
    ["Settings", "Speed"],
    ["Go to, or do", "Dawn walk"],
  ] as const) {
    await page.getByRole("button", { name, exact: true }).click();
    await expect(page.getByRole("dialog")).toContainText(shows); // it comes when it is asked for
    await read(name);
    await leave();
  }
  expect(lines).toBeGreaterThan(2000);
  expect([...faults]).toEqual([]);
});
