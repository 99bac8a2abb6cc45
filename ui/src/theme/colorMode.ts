import { useSyncExternalStore } from "react";

/** What the user chose: one of the themes, or to follow the system. */
export type ColorMode = "system" | "light" | "dark";

const KEY = "pinhole.colorMode";
const MODES: readonly ColorMode[] = ["system", "light", "dark"];
const prefersDark = window.matchMedia("(prefers-color-scheme: dark)");
const listeners = new Set<() => void>();
let isPrinting = false;

function stored(): ColorMode {
  const value = localStorage.getItem(KEY);
  return MODES.find((mode) => mode === value) ?? "system";
}

/** Puts the theme in force on the page; Chakra reads it from the root's class. */
export function applyColorMode(): void {
  const mode = stored();
  const isDark = !isPrinting && (mode === "dark" || (mode === "system" && prefersDark.matches));
  const root = document.documentElement;
  root.classList.toggle("dark", isDark);
  root.classList.toggle("light", !isDark);
  root.style.colorScheme = isDark ? "dark" : "light";
  for (const listener of listeners) listener();
}

prefersDark.addEventListener("change", applyColorMode);
// Paper is white.
for (const [event, printing] of [
  ["beforeprint", true],
  ["afterprint", false],
] as const)
  window.addEventListener(event, () => {
    isPrinting = printing;
    applyColorMode();
  });

/** The chosen mode and a function that moves on to the next one. */
export function useColorMode(): [ColorMode, () => void] {
  const mode = useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, stored);
  const next = () => {
    localStorage.setItem(KEY, MODES[(MODES.indexOf(mode) + 1) % MODES.length] ?? "system");
    applyColorMode();
  };
  return [mode, next];
}
