import { useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { Link } from "react-router";
import { api, unwrap } from "../../api/client";
import type { Planned } from "../../api/plan";
import { shotQuery, shotsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { classes } from "../../lib/classes";
import { signed } from "../../lib/format";
import { asPut, glassName, named, type Piece } from "../../lib/glass";
import { Lights } from "../../lib/Lights";
import { settingWords, stateOf } from "../../lib/option";
import { PictureButton } from "../../lib/PictureButton";
import { type State, StateShape } from "../../lib/StateMark";
import { useDelete } from "../../lib/useDelete";
import { planned as at } from "../../lib/zone";
import { forgetShot } from "../../shell/lastShot";
import { paint } from "../../theme/paint";
import style from "./ShotRow.module.css";

interface ShotRowProps {
  shot: Schemas["StoredShot"];
  /** What the plan of its day says, where it has a time. */
  planned: Planned | undefined;
  /** Whether that is still being made. */
  isAwaited: boolean;
  camera: Schemas["StoredCamera"] | undefined;
  filters: Schemas["ShownFilter"][];
}

/**
 * One shot with the glass it is told: by the plan of its day, which goes by the strongest
 * evidence of the light, else by what is typed.
 */
export function ShotRow({ shot, planned, isAwaited, camera, filters }: ShotRowProps) {
  const told = planned ? ofThePlan(planned) : isAwaited ? AWAITED : ofTheShot(shot, filters);
  const queries = useQueryClient();
  const remove = useDelete({
    what: `“${shot.name}”`,
    queryKey: shotsQuery.queryKey,
    remove: () =>
      unwrap(api.DELETE("/api/shots/{id}", { params: { path: { id: shot.id }, query: { version: shot.version } } })),
    restore: (version) =>
      unwrap(api.POST("/api/shots/{id}/restore", { params: { path: { id: shot.id }, query: { version } } })),
  });
  return (
    <div className={classes(style.row, shot.startsAt && style.planned)} data-awaited={told === AWAITED || undefined}>
      <Link to={`/shot/${shot.id}`} className={style.shot}>
        <div className={style.name}>
          <p className={style.strong}>{shot.name}</p>
          <p className={classes(style.small, style.quiet)}>
            {[at(shot.startsAt), camera?.name ?? `${shot.answer.camera ?? "a camera"} (deleted)`]
              .filter(Boolean)
              .join(" · ")}
          </p>
        </div>
        <div className={style.told}>
          <span style={{ color: paint[told.state] }}>
            <StateShape state={told.state} />
          </span>
          <div>
            <p className={style.strong}>{told.glass}</p>
            <p className={classes(style.small, style.quiet)}>
              {told.state} · {told.words}
            </p>
            {planned ? <Lights lights={planned.plan.lights} /> : <p className={style.small}>{told.light}</p>}
          </div>
        </div>
      </Link>
      <PictureButton
        isQuiet
        aria-label={`Delete ${shot.name}`}
        onClick={() => {
          forgetShot(shot.id);
          queries.removeQueries({ queryKey: shotQuery(shot.id).queryKey });
          remove.mutate();
        }}
      >
        <Trash2 />
      </PictureButton>
    </div>
  );
}

interface Told {
  state: State;
  glass: string;
  words: string;
  light?: string;
}

const AWAITED: Told = { state: "unknown", glass: "…", words: "the plan of its day is being made" };

const ofThePlan = ({ plan, glass }: Planned): Told => ({ state: plan.state, glass, words: plan.words });

function ofTheShot(shot: Schemas["StoredShot"], filters: Schemas["ShownFilter"][]): Told {
  const { given, unanswered } = shot.answer;
  if (unanswered) return { state: "unknown", glass: "No answer", words: unanswered };
  const { chosen, settled } = given;
  const pieces = new Map([...named(shot.answer.glass), ...filters.map((f): [string, Piece] => [f.id, f])]);
  return {
    state: stateOf(given),
    glass: settled ? asPut(glassName(chosen.filters, pieces, chosen.settings), given.placed) : "still looking",
    words: given.gives ?? `${settingWords(chosen)}${settled ? ` · ${signed(chosen.leftStops)}` : ""}`,
    light: settled ? `${given.reading.text}, ${shot.startsAt ? "as typed" : "as typed: it has no time"}` : "",
  };
}
