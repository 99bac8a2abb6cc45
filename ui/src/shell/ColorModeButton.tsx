import { Moon, Sun, SunMoon } from "lucide-react";
import { PictureButton } from "../lib/PictureButton";
import { type ColorMode, useColorMode } from "../theme/colorMode";

const ICONS: Record<ColorMode, React.ReactNode> = { system: <SunMoon />, light: <Sun />, dark: <Moon /> };
const NAMES: Record<ColorMode, string> = { system: "follows the system", light: "light", dark: "dark" };

/** Switches between following the system, light and dark. */
export function ColorModeButton() {
  const [mode, next] = useColorMode();
  return (
    <PictureButton aria-label={`Theme: ${NAMES[mode]}. Change`} title={`Theme: ${NAMES[mode]}`} onClick={next}>
      {ICONS[mode]}
    </PictureButton>
  );
}
