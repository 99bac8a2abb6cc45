import { defineConfig } from "@playwright/test";

const desk = { width: 1280, height: 800 };

export default defineConfig({
  outputDir: "results",
  reporter: process.env.CI ? "line" : "list",
  workers: 3, // two cores: where one waits, another works
  fullyParallel: true, // each test has a server of its own
  timeout: 90_000, // axe takes its time on two busy cores
  expect: { timeout: 15_000 },
  retries: process.env.CI ? 1 : 0, // one more try on a busy machine; what needed it is listed as flaky
  forbidOnly: true,
  use: {
    viewport: desk,
    timezoneId: "Etc/GMT+1",
    locale: "en-GB",
    contextOptions: { reducedMotion: "reduce" }, // loops that play take a third of two cores from the tests
    serviceWorkers: "block", // only the tests of working offline need one
    trace: "on-first-retry", // tracing takes a fifth of the time,
    launchOptions: {
      // Debian's own Chromium without its windows, a third faster: none is downloaded.
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium-headless-shell",
      args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
    },
  },
  projects: [
    { name: "tests", testDir: "tests" },
    { name: "shots", testDir: "shots" },
    // Tracing costs a fifth of the time it would measure.
    { name: "latency", testDir: "latency", workers: 1, use: { trace: "off" } },
  ],
});
