import { createSystem, defaultBaseConfig, defineConfig } from "@chakra-ui/react";
import {
  alertSlotRecipe,
  animationStyles,
  badgeRecipe,
  breakpoints,
  buttonRecipe,
  codeRecipe,
  cssVarsPrefix,
  cssVarsRoot,
  datePickerSlotRecipe,
  dialogSlotRecipe,
  globalCss,
  headingRecipe,
  iconRecipe,
  inputRecipe,
  kbdRecipe,
  keyframes,
  layerStyles,
  linkRecipe,
  listSlotRecipe,
  progressSlotRecipe,
  qrCodeSlotRecipe,
  semanticTokens,
  skeletonRecipe,
  sliderSlotRecipe,
  spinnerRecipe,
  switchSlotRecipe,
  textareaRecipe,
  textStyles,
  toastSlotRecipe,
  tokens,
} from "@chakra-ui/react/theme";

const LESS_MOTION = "@media (prefers-reduced-motion: reduce)";
const MORE_CONTRAST = "@media (prefers-contrast: more)";
/** Where the reader's own colours replace the page's. */
const OWN_COLOURS = "@media (forced-colors: active)";
const PAPER = "@media print";

/**
 * The look of the whole application. Neutral greys belong to glass and mean
 * darkness; the one warm hue is light; the accent is what can be acted on. Each
 * text colour meets 7:1 on the panels of its theme.
 */
const config = defineConfig({
  globalCss: {
    "html, body": { bg: "page", color: "ink", fontFamily: "body", fontVariantNumeric: "tabular-nums" },
    "*:focus-visible": { outline: "3px solid", outlineColor: "accent", outlineOffset: "2px" },
    "*, *::before, *::after": {
      [LESS_MOTION]: {
        animationDuration: "0.01ms !important",
        animationIterationCount: "1 !important",
        transitionDuration: "0s !important",
        scrollBehavior: "auto !important",
      },
      // All of a list is printed, not what of it was in the window.
      [PAPER]: { overflow: "visible !important", maxHeight: "none !important" },
    },
    ":root": {
      [MORE_CONTRAST]: {
        "--chakra-colors-edge": "var(--chakra-colors-ink)",
        "--chakra-colors-muted": "var(--chakra-colors-ink)",
      },
    },
    // Drawings keep their scale of greys, on a ground of their own.
    "svg[role=img], svg[role=group], svg[aria-hidden=true]:not(.lucide)": {
      [OWN_COLOURS]: { forcedColorAdjust: "none", bg: "panel" },
    },
    // What is chosen is otherwise told by its ground, which is taken away.
    "[aria-pressed=true], [aria-current=page], [aria-selected=true], [data-state=checked]": {
      [OWN_COLOURS]: { outline: "3px solid Highlight !important", outlineOffset: "-3px !important" },
    },
    "nav, header, [data-scope=toast]": { [PAPER]: { display: "none !important" } },
    // A note stands below an open sheet, not on what is in it.
    "[data-scroll-lock] [data-scope=toast][data-part=group]": { bottom: "4px !important" },
    "section, details, table": { [PAPER]: { breakInside: "avoid-page" } },
  },
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        heading: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
      },
    },
    semanticTokens: {
      colors: {
        page: { value: { base: "#f3f3f0", _dark: "#0e1013" } },
        panel: { value: { base: "#ffffff", _dark: "#181b20" } },
        edge: { value: { base: "#d5d6d2", _dark: "#343941" } },
        ink: { value: { base: "#15171c", _dark: "#f3f2ee" } },
        muted: { value: { base: "#474c55", _dark: "#bcc1ca" } },
        accent: { value: { base: "#37379c", _dark: "#b4b9ff" } },
        onAccent: { value: { base: "#ffffff", _dark: "#15173a" } },
        accentSoft: { value: { base: "#e6e7fb", _dark: "#2a2d4d" } },
        lamp: { value: { base: "#f0a020", _dark: "#f5b84a" } },
        lampInk: { value: { base: "#7a4100", _dark: "#f8cd80" } },
        lampSoft: { value: { base: "#fdebcb", _dark: "#45341a" } },
        holds: { value: { base: "#0f5c33", _dark: "#85dbaa" } },
        holdsSoft: { value: { base: "#e0f3e7", _dark: "#15321f" } },
        tight: { value: { base: "#653283", _dark: "#d9b0f2" } },
        tightSoft: { value: { base: "#f2e6f8", _dark: "#33203f" } },
        breaks: { value: { base: "#951527", _dark: "#ffa5ac" } },
        breaksSoft: { value: { base: "#fbe5e7", _dark: "#421a1f" } },
        unknown: { value: { base: "#474c55", _dark: "#bcc1ca" } },
        unknownSoft: { value: { base: "#ececea", _dark: "#262a31" } },
      },
    },
    recipes: {
      button: {
        base: { fontWeight: "semibold", minH: "44px" },
        variants: {
          variant: {
            solid: { bg: "accent", color: "onAccent", _hover: { bg: "accent/90" } },
            outline: { borderColor: "accent", color: "accent", _hover: { bg: "accentSoft" } },
            ghost: { color: "accent", _hover: { bg: "accentSoft" } },
          },
        },
      },
    },
  },
});

/** Hues that nothing is drawn in; each has 27 tokens. */
const without = <T extends object>(colors: T): T => {
  const unused = new Set(["yellow", "teal", "cyan", "purple", "pink"]);
  return Object.fromEntries(Object.entries(colors).filter(([name]) => !unused.has(name))) as T;
};

const { "*": ofEach, "*::selection": _ofSelected, html: ofRoot, ...ofOthers } = globalCss;
/**
 * The library's styles of every page. What it sets anew on each element is inherited from the root, since no part
 * of a page has a theme of its own, and what is selected looks as the browser has it: a dialog that opens changes
 * what all elements inherit, and these would have each of them worked out from the start.
 */
const ofPages = { ...ofOthers, html: { ...Object(ofEach), ...Object(ofRoot) } };

/** The library's theme with the recipes of the parts that are used: those of the others are half of it. */
const used = defineConfig({
  preflight: true,
  cssVarsPrefix,
  cssVarsRoot,
  globalCss: ofPages,
  theme: {
    breakpoints,
    keyframes,
    tokens: { ...tokens, colors: without(tokens.colors ?? {}) },
    semanticTokens: { ...semanticTokens, colors: without(semanticTokens.colors ?? {}) },
    textStyles,
    layerStyles,
    animationStyles,
    recipes: {
      badge: badgeRecipe,
      button: buttonRecipe,
      code: codeRecipe,
      heading: headingRecipe,
      icon: iconRecipe,
      input: inputRecipe,
      kbd: kbdRecipe,
      link: linkRecipe,
      skeleton: skeletonRecipe,
      spinner: spinnerRecipe,
      textarea: textareaRecipe,
    },
    slotRecipes: {
      alert: alertSlotRecipe,
      datePicker: datePickerSlotRecipe,
      dialog: dialogSlotRecipe,
      list: listSlotRecipe,
      progress: progressSlotRecipe,
      qrCode: qrCodeSlotRecipe,
      slider: sliderSlotRecipe,
      switch: switchSlotRecipe,
      toast: toastSlotRecipe,
    },
  },
});

export const system = createSystem(defaultBaseConfig, used, config);
