import { Skeleton } from "@chakra-ui/react";
import { lazy, Suspense } from "react";
import { Navigate, Route, Routes } from "react-router";
import { ShootPlace } from "./places/shoot/ShootPlace";
import { Nothing } from "./shell/Broken";
import { Shell } from "./shell/Shell";

// The page opens on the shoots; the larger places come when they are gone to.
const ShotPlace = lazy(async () => ({ default: (await import("./places/shot/ShotPlace")).ShotPlace }));
const DayPlace = lazy(async () => ({ default: (await import("./places/day/DayPlace")).DayPlace }));
const CardStart = lazy(async () => ({ default: (await import("./places/card/CardPlace")).CardStart }));
const CardPlace = lazy(async () => ({ default: (await import("./places/card/CardPlace")).CardPlace }));
const KitPlace = lazy(async () => ({ default: (await import("./places/kit/KitPlace")).KitPlace }));

const MeasurePlace = lazy(async () => ({ default: (await import("./places/measure/MeasurePlace")).MeasurePlace }));
const LogPlace = lazy(async () => ({ default: (await import("./places/log/LogPlace")).LogPlace }));
const PracticePlace = lazy(async () => ({ default: (await import("./places/practice/PracticePlace")).PracticePlace }));
const opening = <Skeleton h="300px" aria-busy="true" aria-label="Opening" />;

export function App() {
  return (
    <Routes>
      <Route element={<Shell />}>
        <Route index element={<Navigate to="/shoot" replace />} />
        <Route path="shoot" element={<ShootPlace />} />
        <Route
          path="shoot/:id"
          element={
            <Suspense fallback={opening}>
              <DayPlace />
            </Suspense>
          }
        />
        <Route
          path="shot/:id"
          element={
            <Suspense fallback={opening}>
              <ShotPlace />
            </Suspense>
          }
        />
        <Route
          path="card"
          element={
            <Suspense fallback={opening}>
              <CardStart />
            </Suspense>
          }
        />
        <Route
          path="card/:id"
          element={
            <Suspense fallback={opening}>
              <CardPlace />
            </Suspense>
          }
        />
        <Route
          path="kit/:part?"
          element={
            <Suspense fallback={opening}>
              <KitPlace />
            </Suspense>
          }
        />
        <Route
          path="measure/:what?"
          element={
            <Suspense fallback={opening}>
              <MeasurePlace />
            </Suspense>
          }
        />
        <Route
          path="log"
          element={
            <Suspense fallback={opening}>
              <LogPlace />
            </Suspense>
          }
        />
        <Route
          path="practice"
          element={
            <Suspense fallback={opening}>
              <PracticePlace />
            </Suspense>
          }
        />
        <Route path="*" element={<Nothing />} />
      </Route>
    </Routes>
  );
}
