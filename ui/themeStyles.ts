import { fileURLToPath } from "node:url";
import type { SystemContext } from "@chakra-ui/react";
import { Global } from "@emotion/react";
import { createElement } from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { type Plugin, runnerImport } from "vite";

const NAME = "virtual:theme.css";
const PATH = "/@theme/theme.css";
/** Where the component library works its theme's styles out, whether or not they are asked for. */
const EAGER = "[getPreflightCss(), getGlobalCss(), getTokenCss()]";
const SYSTEM = fileURLToPath(new URL("src/theme/system.ts", import.meta.url));

/**
 * The theme's own styles as a style sheet: written once by the build, where each page that is
 * opened would work them out anew and hand them to the browser as text. The page's own theme
 * is without them: they would be a third of the time that it takes.
 */
export const themeStyles = (): Plugin => ({
  name: "theme-styles",
  resolveId: (name) => (name === NAME ? PATH : undefined),
  load(path) {
    if (path !== PATH) return undefined;
    this.addWatchFile(SYSTEM);
    return written();
  },
  transform: {
    filter: { id: /\/styled-system\/system\.js$/ },
    handler(code) {
      if (!code.includes(EAGER)) this.error("the theme's styles are worked out in another way than was known");
      return code.replace(EAGER, "[]");
    },
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
