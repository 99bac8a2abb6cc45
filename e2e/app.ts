import { type ChildProcess, spawn } from "node:child_process";
import { existsSync } from "node:fs";
import { copyFile, mkdir, mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { test as base, expect, type Locator, type Page } from "@playwright/test";

/** What telephones are let in by, where they are served. */
export const PINHOLE_PASSPHRASE = "olive-grove-at-noon";

/**
 * Where the data of tests lies: in memory where that can be. What is stored is made to reach
 * the disk before it is acknowledged, and a disk may take its time.
 */
export const ROOM = existsSync("/dev/shm") ? "/dev/shm" : tmpdir();

/**
 * What the browser reports by itself: refused input is answered 4xx, and a server that is gone not at all, be it
 * asked for an answer, to listen, or for the worker.
 */
const BY_THE_BROWSER =
  /^(Failed to load resource|WebSocket connection to|An unknown error occurred when fetching the script)/;

/** The real binary on a data folder of its own. */
export class App {
  url = "";
  /** Where a telephone on the local network reaches it, where it does. */
  phoneUrl = "";
  private process: ChildProcess | undefined;
  private readonly folder: string;
  private readonly args: string[];

  constructor(folder: string, args: string[]) {
    this.folder = folder;
    this.args = args;
  }

  /** Where its data file is. */
  get data(): string {
    return join(this.folder, "pinhole", this.args.includes("--demo") ? "demo.db" : "pinhole.db");
  }

  /** Starts the server; a second start serves the same data at the same address. */
  async start(): Promise<void> {
    const listen = this.url ? new URL(this.url).host : "127.0.0.1:0";
    const env = { ...process.env, XDG_DATA_HOME: this.folder, PINHOLE_PASSPHRASE };
    const child = spawn("../bin/pinhole", ["serve", ...this.args, "--listen", listen], {
      env,
      stdio: ["ignore", "pipe", "ignore"],
    });
    this.process = child;
    this.url = await new Promise<string>((resolve, reject) => {
      let said = "";
      child.stdout?.on("data", (chunk: Buffer) => {
        said += chunk;
        this.phoneUrl = /phone\s+(https:\S+)\//.exec(said)?.[1] ?? "";
        const address = /open\s+(http:\S+)\//.exec(said)?.[1];
        if (address) resolve(address);
      });
      child.once("exit", (code) => reject(new Error(`pinhole ended with ${code} before it served`)));
    });
  }

  /** Stops the server as a service manager would, and waits until it has ended. */
  async stop(): Promise<void> {
    const child = this.process;
    if (!child || child.exitCode !== null) return;
    const ended = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGTERM");
    await ended;
  }
}

interface Options {
  /** Whether telephones are served too. */
  lan: boolean;
  /** Whether the application starts with the demo, or with nothing. */
  demo: boolean;
}

export const test = base.extend<Options & { app: App }, { seeded: string }>({
  // The demo is filled once; each test begins with a copy of its data file.
  seeded: [
    // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the names of what is asked for
    async ({}, use) => {
      const folder = await mkdtemp(join(ROOM, "pinhole seeded "));
      const first = new App(folder, ["--demo"]);
      await first.start();
      await first.stop();
      await use(first.data);
      await rm(folder, { recursive: true });
    },
    { scope: "worker" },
  ],
  demo: [true, { option: true }],
  lan: [false, { option: true }],
  app: async ({ demo, lan, seeded }, use) => {
    const folder = await mkdtemp(join(ROOM, "pinhole e2e "));
    const app = new App(folder, [
      ...(demo ? ["--demo"] : []),
      ...(lan ? ["--lan", "--lan-listen", "127.0.0.1:0"] : []),
    ]);
    if (demo) {
      await mkdir(dirname(app.data), { recursive: true, mode: 0o700 });
      await copyFile(seeded, app.data);
    }
    await app.start();
    await use(app);
    await app.stop();
    await rm(folder, { recursive: true });
  },
  page: async ({ page, app: _ }, use) => {
    const faults: string[] = [];
    // What is loaded ahead of its use takes a tenth of the time from the tests.
    await page.addInitScript(() =>
      Object.defineProperty(navigator, "connection", { value: { saveData: true }, configurable: true }),
    );
    page.on("pageerror", (error) => faults.push(error.message));
    page.on("console", (message) => {
      if (message.type() === "error" && !BY_THE_BROWSER.test(message.text())) faults.push(message.text());
    });
    await use(page);
    expect(faults, "errors on the page").toEqual([]);
  },
});

export { expect };

/** Goes to a place: as a link does where the page is loaded, since loading it anew costs each test most of a second. */
export async function visit(page: Page, app: App, address: string): Promise<void> {
  if (!page.url().startsWith(app.url)) await page.goto(app.url + address);
  else
    await page.evaluate((to) => {
      history.pushState(null, "", to);
      dispatchEvent(new PopStateEvent("popstate"));
    }, address);
}

/** Opens a demo shot by its name: at its own address, since the list before it costs each test a second. */
export async function openShot(page: Page, app: App, name: string): Promise<void> {
  const { items } = (await (await fetch(`${app.url}/api/shots`)).json()) as { items: { id: string; name: string }[] };
  const id = items.find((shot) => shot.name === name)?.id;
  if (!id) throw new Error(`no shot is named ${name}`);
  await visit(page, app, `/shot/${id}`);
  await expect(page.getByLabel("Name of the shot")).toHaveValue(name);
}

/** The parts of the Shot screen that tests read. */
export const on = (page: Page) => ({
  glass: page.getByTestId("glass"),
  state: page.getByTestId("state"),
  trades: page.getByTestId("trades"),
  shutter: page.getByRole("slider", { name: "Shutter" }),
  schools: page.getByTestId("schools"),
  motion: page.getByTestId("motion-words"),
  setting: page.getByTestId("setting"),
  error: page.getByTestId("error"),
  reasons: page.getByTestId("reasons"),
  others: page.getByTestId("others"),
  rail: page.getByTestId("stop-rail"),
  saved: page.getByTestId("save-note"),
  meter: page.getByLabel("what the meter says"),
});

/** Opens the small form of a part of the shot, unless it is open. */
export async function edit(
  page: Page,
  form: "Camera" | "Light" | "Look" | "Motion" | "Filters" | "Preferences",
): Promise<Locator> {
  const region = page.getByRole("region", { name: form, exact: true });
  const kind = form === "Preferences" ? /^(preferences|taste):/ : new RegExp(`^${form.toLowerCase()}:`);
  const part = page.getByTestId("shot-line").getByRole("button", { name: kind });
  await part.first().waitFor();
  if (!(await region.isVisible())) {
    await part.first().click();
    await expect(region).toBeFocused(); // what is done sooner would lose the focus to it
  }
  return region;
}

/** Opens a drawer, unless it is open. */
export async function drawer(page: Page, heading: string): Promise<Locator> {
  const found = page.getByRole("group", { name: heading, exact: true });
  if ((await found.getAttribute("open")) === null) await found.locator("summary").first().click();
  return found;
}

/** Takes one of the ways out of a conflict. */
export async function takeTrade(page: Page, name: RegExp): Promise<void> {
  const trade = page.getByTestId("trades").getByRole("button", { name });
  const more = page.getByRole("group", { name: "More ways out", exact: true });
  await expect(trade.or(more).first()).toBeVisible();
  if (!(await trade.isVisible())) await drawer(page, "More ways out");
  await trade.click();
}

/**
 * Calls a function with each question of a kind that the page asks the server, and lets it go on its way only
 * when that is done, whichever way it takes. Said before the page is opened.
 */
export async function atQuestions(page: Page, kind: string, before: (body: string) => unknown): Promise<void> {
  await page.route(`**/api/calc/${kind}`, async (route) => {
    await before(route.request().postData() ?? "");
    await route.continue().catch(() => {}); // the page may have given it up
  });
  await page.routeWebSocket("**/api/calc", (connection) => {
    const server = connection.connectToServer();
    connection.onMessage(async (message) => {
      const [, name, body] = /^\d+ (\w+) (.*)$/s.exec(`${message}`) ?? [];
      if (name === kind) await before(body ?? "");
      server.send(message);
    });
  });
}

/** Waits until a page that was visited could do without its server: it keeps itself, and what it was told. */
export async function ableWithoutServer(page: Page): Promise<void> {
  await page.evaluate(() => navigator.serviceWorker.ready);
  await expect
    .poll(() =>
      page.evaluate(async () => {
        const names = await caches.keys();
        const urls = await Promise.all(names.map(async (n) => (await (await caches.open(n)).keys()).map((r) => r.url)));
        return urls.flat().some((u) => u.includes("calc.wasm"));
      }),
    )
    .toBe(true);
  await page.waitForTimeout(1_500); // what the server said is written down once a second
}
