import { Navigate, Route, Routes } from "react-router";
import { KitPlace } from "./places/kit/KitPlace";
import { ShootPlace } from "./places/shoot/ShootPlace";
import { ShotPlace } from "./places/shot/ShotPlace";
import { Shell } from "./shell/Shell";

export function App() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route index element={<Navigate to="/shoot" replace />} />
        <Route path="shoot" element={<ShootPlace />} />
        <Route path="shot/:id" element={<ShotPlace />} />
        <Route path="kit" element={<KitPlace />} />
        <Route path="*" element={<Navigate to="/shoot" replace />} />
      </Route>
    </Routes>
  );
}
