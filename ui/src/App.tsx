import { useEffect } from "react";
import { Navigate, Route, Routes } from "react-router";
import { loadAhead } from "./lib/loadAhead";
import { HOME, loadPlaces, PLACES } from "./places/places";
import { ShootPlace } from "./places/shoot/ShootPlace";
import { Nothing } from "./shell/Broken";
import { Shell } from "./shell/Shell";

export function App() {
  useEffect(() => loadAhead(loadPlaces), []);
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route index element={<Navigate to={HOME} replace />} />
        <Route path={HOME} element={<ShootPlace />} />
        {PLACES.map(({ path, Place }) => (
          <Route key={path} path={path} element={<Place />} />
        ))}
        <Route path="*" element={<Nothing />} />
      </Route>
    </Routes>
  );
}
