import { useEffect } from "react";

const KEY = "pinhole.lastShot";

/** The shot that was open last, remembered on this device; openId is the one open now. */
export function useLastShot(openId: string | undefined): string | null {
  useEffect(() => {
    if (openId) localStorage.setItem(KEY, openId);
  }, [openId]);
  return openId ?? localStorage.getItem(KEY);
}

/** Forgets the shot, once it is deleted or gone. */
export function forgetShot(id: string): void {
  if (localStorage.getItem(KEY) === id) localStorage.removeItem(KEY);
}
