import { useQuery } from "@tanstack/react-query";
import { Aperture, Backpack, Brain, CalendarDays, ClipboardCheck, NotebookText, ScanEye } from "lucide-react";
import { useEffect } from "react";
import { NavLink, Outlet, useMatch } from "react-router";
import { sessionQuery, statusQuery } from "../api/queries";
import { classes } from "../lib/classes";
import { keepFor } from "../offline/persist";
import { Backups } from "./Backups";
import { Guarded } from "./Broken";
import { ColorModeButton } from "./ColorModeButton";
import { DamageNote } from "./DamageNote";
import { Incoming } from "./incoming/Incoming";
import { Login } from "./Login";
import { useLastShot } from "./lastShot";
import { Palette } from "./Palette";
import { QuickLine } from "./QuickLine";
import { ReachBadge } from "./ReachBadge";
import { Settings } from "./Settings";
import { SharePhone } from "./SharePhone";
import style from "./Shell.module.css";
import { ShortcutHelp } from "./ShortcutHelp";
import { Toasts } from "./toaster";
import { useUndoKey } from "./useUndo";

/** The frame around every place: the places at the side or the thumb, the quick line above. */
export function Shell() {
  const lastShot = useLastShot(useMatch("/shot/:id")?.params.id);
  useUndoKey();
  const { data: session } = useQuery(sessionQuery);
  const { data: status } = useQuery(statusQuery);
  useEffect(() => {
    if (status) keepFor(status.keepDays);
  }, [status]);
  return (
    <div className={style.frame}>
      <a href="#main" className={style.skip}>
        Skip to the content
      </a>
      <nav aria-label="Places" className={style.places}>
        <Place to="/shoot" icon={<CalendarDays aria-hidden />} name="Shoots" />
        {lastShot && <Place to={`/shot/${lastShot}`} icon={<Aperture aria-hidden />} name="Shot" />}
        <Place to="/card" icon={<ClipboardCheck aria-hidden />} name="Field card" />
        <Place to="/kit" icon={<Backpack aria-hidden />} name="Kit" />
        <Place to="/measure" icon={<ScanEye aria-hidden />} name="Measure" />
        <Place to="/log" icon={<NotebookText aria-hidden />} name="Log" />
        <Place to="/practice" icon={<Brain aria-hidden />} name="Practice" />
      </nav>
      <div className={style.content}>
        <header className={style.bar}>
          <QuickLine />
          <div className={classes(style.space, style.spare)} />
          {status?.demo && <span className={classes(style.note, style.spare)}>demo data</span>}
          <Palette />
          <ReachBadge />
          <SharePhone />
          <Backups />
          <ShortcutHelp />
          <Settings />
          <ColorModeButton />
        </header>
        <DamageNote />
        <main id="main" className={style.main} tabIndex={-1}>
          {session?.needed && !session.open ? (
            <Login />
          ) : (
            <Guarded>
              <Outlet />
            </Guarded>
          )}
        </main>
      </div>
      <Incoming />
      <Toasts />
    </div>
  );
}

const Place = ({ to, icon, name }: { to: string; icon: React.ReactNode; name: string }) => (
  <NavLink to={to} className={({ isActive }) => classes(style.place, isActive && style.here)}>
    {icon}
    {name}
  </NavLink>
);
