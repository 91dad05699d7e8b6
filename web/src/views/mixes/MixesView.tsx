import { useState } from "react";
import { Link as RouteLink, useLocation, useParams } from "wouter";
import { valueOf } from "../../data/show";
import { stripName, useShow } from "../../data/use";
import { SERVES_WORD } from "../../data/words";
import { Button } from "../../ui/Button";
import { ColourBar, ViewHead } from "../../ui/Panel";
import { MixHead } from "./MixHead";
import { NewMixDialog } from "./NewMixDialog";
import { Sends } from "./Sends";

/** Mixes: the list of listeners at the left, and what goes into the chosen one. */
export function MixesView() {
  const params = useParams<{ mix?: string }>();
  const mixes = useShow((state) => state.mixes);
  const [making, setMaking] = useState(false);
  const [, navigate] = useLocation();
  const wanted = params.mix && /^\d+$/.test(params.mix) ? Number(params.mix) : null;
  const bus = wanted !== null && mixes.includes(wanted) ? `mix/${wanted}` : params.mix || mixes.length === 0 ? "house" : `mix/${mixes[0]}`;
  return (
    <>
      <ViewHead title="Mixes">
        <Button tone="main" onClick={() => setMaking(true)}>
          New mix…
        </Button>
      </ViewHead>
      <div className="grid grid-cols-[156px_minmax(0,1fr)] gap-3 flex-1 min-h-0">
        <ul className="scrolls flex flex-col gap-[3px]" aria-label="Listeners">
          {["house", ...mixes.map((number) => `mix/${number}`)].map((one) => (
            <MixItem key={one} bus={one} here={one === bus} />
          ))}
          {mixes.length === 0 && (
            <li className="text-soft text-[13px] p-2">No mix yet. Make one for each performer, all in one step.</li>
          )}
        </ul>
        <section aria-label={`Into ${bus}`} className="flex flex-col min-h-0 min-w-0">
          <MixHead bus={bus} onGone={() => navigate("/mixes")} />
          <Sends key={bus} bus={bus} />
        </section>
      </div>
      <NewMixDialog open={making} onOpenChange={setMaking} onMade={(number) => navigate(`/mixes/${number}`)} />
    </>
  );
}

function MixItem({ bus, here }: { bus: string; here: boolean }) {
  const name = useShow((state) => stripName(state, bus));
  const number = bus === "house" ? "" : bus.split("/")[1];
  const colour = useShow((state) => (number ? String(valueOf(state, `${bus}/colour`)) : "sand"));
  const about = useShow((state) =>
    number
      ? `${SERVES_WORD[String(valueOf(state, `${bus}/serves`))]}, ${valueOf(state, `${bus}/format`)}`
      : "left and right",
  );
  const muted = useShow((state) => valueOf(state, `${bus}/mute`) === true);
  return (
    <li>
      <RouteLink
        to={`/mixes/${number || "house"}`}
        aria-current={here ? "true" : undefined}
        className={`flex items-stretch gap-2 h-11 rounded-lg ${here ? "bg-raise" : "bg-floor hover:bg-card"}`}
      >
        <ColourBar colour={colour} />
        <span className="flex-1 min-w-0 py-1 leading-tight">
          <span className={`block truncate ${here ? "font-semibold" : ""}`}>{name}</span>
          <span className="block text-[12px] text-faint">{number && `${number} · `}{about}</span>
        </span>
        {muted && <span className="self-center mr-2 text-coral text-[12px] font-semibold">muted</span>}
      </RouteLink>
    </li>
  );
}
