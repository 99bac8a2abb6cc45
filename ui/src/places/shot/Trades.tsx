import { Button } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { classes } from "../../lib/classes";
import { Drawer } from "../../lib/Drawer";
import { decimal } from "../../lib/locale";
import { StateShape } from "../../lib/StateMark";
import style from "./Verdict.module.css";

type Trade = Schemas["WindowTrade"];

interface TradesProps {
  window: Schemas["WindowAnswer"];
  /** The trade that was made last and can be undone. */
  made: string | undefined;
  /** Gear that is only being tried, in words. */
  tried: readonly string[];
  onTrade: (trade: Trade) => void;
  onUndo: () => void;
  onDropTried: () => void;
}

/** What the whole shot is like with the trade made. */
function leaves({ state, stillName, gainStops, leavesStops }: Trade): string {
  if (state === "holds") return "resolves it";
  const left = `${decimal(leavesStops, 1)} stops`;
  if (state === "breaks")
    return `gains ${decimal(gainStops, 1)}, still breaks by ${left}${stillName ? `: ${stillName}` : ""}`;
  return stillName ? `covers it, tight: ${stillName}` : "covers it, tight";
}

/** Which pair excludes each other, and what one could give for the other. */
export function Trades({ window, made, tried, onTrade, onUndo, onDropTried }: TradesProps) {
  const [conflict] = window.conflicts;
  const [first, ...rest] = window.trades;
  return (
    <div className={style.trades} data-testid="trades">
      {made && (
        <div className={classes(style.note, style.applied)}>
          <p>Applied: {made}</p>
          <Button size="sm" variant="outline" onClick={onUndo}>
            Undo
          </Button>
        </div>
      )}
      {tried.length > 0 && (
        <div className={style.note}>
          <p>Previewing: {tried.join(", ")}</p>
          <Button size="sm" variant="ghost" onClick={onDropTried}>
            Back to my gear
          </Button>
        </div>
      )}
      {conflict && (
        <div className={classes(style.conflict, style[conflict.verdict])}>
          <StateShape state={conflict.verdict} size={12} />
          <p>{conflict.text}</p>
        </div>
      )}
      {first && (
        <>
          <b className={classes(style.small, style.muted)}>Ways out</b>
          <TradeButton trade={first} onTrade={onTrade} />
          {rest.length > 0 && (
            <Drawer isPlain heading="More ways out" result={rest.map((t) => t.does).join(", ")}>
              <div className={style.ways}>
                {rest.map((trade) => (
                  <TradeButton key={trade.kind} trade={trade} onTrade={onTrade} />
                ))}
              </div>
            </Drawer>
          )}
        </>
      )}
    </div>
  );
}

/** A way out, what the whole shot is with it, and what it costs. */
function TradeButton({ trade, onTrade }: { trade: Trade; onTrade: (trade: Trade) => void }) {
  return (
    <button type="button" className={style.way} onClick={() => onTrade(trade)}>
      <b>{trade.does}</b>
      <span>
        {leaves(trade)} · {trade.costs}
      </span>
    </button>
  );
}
