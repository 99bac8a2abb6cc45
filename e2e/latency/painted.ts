import type { Page } from "@playwright/test";

declare global {
  interface Window {
    /** Acts, and resolves with the milliseconds until what a selector finds was changed and painted. */
    untilPainted(selector: string, act: () => void): Promise<number>;
    /** Writes a text into a field as a key press would. */
    write(field: HTMLInputElement, text: string): void;
  }
}

/** Gives the page what it is measured with; before it is opened. */
export const measured = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    window.untilPainted = async (selector, act) => {
      const shown = document.querySelector(selector);
      if (!shown) throw new Error(`${selector} is not on the page`);
      // Somewhere between two frames, as a hand's press is.
      await new Promise((resolve) => setTimeout(resolve, 100 + 17 * Math.random()));
      const start = performance.now();
      const painted = new Promise<number>((resolve, reject) => {
        const late = setTimeout(() => reject(new Error(`${selector} did not change`)), 5_000);
        new MutationObserver((_, observer) => {
          observer.disconnect();
          clearTimeout(late);
          requestAnimationFrame(() => {
            // The first task after a frame's callbacks comes when it is painted.
            const { port1, port2 } = new MessageChannel();
            port1.onmessage = () => resolve(performance.now() - start);
            port2.postMessage(0);
          });
        }).observe(shown, { childList: true, characterData: true, subtree: true, attributes: true });
      });
      act();
      return painted;
    };
    window.write = (field, text) => {
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, text);
      field.dispatchEvent(new Event("input", { bubbles: true }));
    };
  });

/** Prints the middle, the slow tenth and the worst of what was measured. */
export function print(what: string, times: number[]): void {
  const sorted = times.toSorted((a, b) => a - b);
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))]?.toFixed(1).padStart(6);
  console.log(`${what.padEnd(44)} median ${at(0.5)} ms  90 % ${at(0.9)} ms  longest ${at(1)} ms  of ${times.length}`);
}
