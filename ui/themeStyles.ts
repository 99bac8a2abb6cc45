import { fileURLToPath } from "node:url";
import type { SystemContext } from "@chakra-ui/react";
import { Global } from "@emotion/react";
import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { type Plugin, runnerImport } from "vite";

const NAME = "virtual:theme.css";
const PATH = "/@theme/theme.css";
const SYSTEM = fileURLToPath(new URL("src/theme/system.ts", import.meta.url));

/**
 * The theme's own styles as a style sheet: written once by the build, where each page that is
 * opened would work them out anew and hand them to the browser as text.
 */
export const themeStyles = (): Plugin => ({
  name: "theme-styles",
  resolveId: (name) => (name === NAME ? PATH : undefined),
  load(path) {
    if (path !== PATH) return undefined;
    this.addWatchFile(SYSTEM);
    return written();
  },
});

async function written(): Promise<string> {
  const { module } = await runnerImport<{ system: SystemContext }>(SYSTEM, {
    configFile: false,
    ssr: { noExternal: [/@chakra-ui/] },
  });
  const { system } = module;
  const styles = [system.layers.atRule, ...system._global].map((styles, key) =>
    createElement(Global, { key, styles: styles as never }),
  );
  return renderToStaticMarkup(styles).replace(/<\/?style[^>]*>/g, "");
}
