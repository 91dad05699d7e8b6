import { Fragment, type ReactNode, useEffect, useRef, useState } from "react";
import { Link as RouteLink, useLocation, useParams } from "wouter";
import { inWords, isOf, stripKind, thingOf } from "../../data/address";
import { valueIn } from "../../data/show";
import { select, socketName, stripName, useShow } from "../../data/use";
import { SERVES_WORD } from "../../data/words";
import { Free } from "../../frame/Free";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { usePhone } from "../../ui/media";
import { ColourBar } from "../../ui/Panel";
import { useAsked } from "../../ui/useAsked";
import { walkLinks } from "../../ui/walk";
import { pageOf, stripOfPage } from "./addresses";
import { MixHead } from "./MixHead";
import { NewMixDialog } from "./NewMixDialog";
import { Sends } from "./Sends";

const SECTIONS = [
  ["Main", ""],
  ["Mixes", "mix"],
  ["Groups", "group"],
  ["Matrices", "matrix"],
  ["Returns", "return"],
] as const;

/** Mixes, groups, matrices and returns at the left, and what goes into the chosen one. */
export function MixesView() {
  const params = useParams<{ mix?: string }>();
  const known = useShow((state) =>
    [
      "house",
      "mono",
      ...state.mixes.map((n) => `mix/${n}`),
      ...state.groups.map((n) => `group/${n}`),
      ...state.matrices.map((n) => `matrix/${n}`),
      ...state.returns.map((n) => `return/${n}`),
    ].join(" "),
  ).split(" ");
  const phone = usePhone();
  const [making, setMaking] = useState(false);
  useAsked(
    "new",
    () => true,
    () => setMaking(true),
  );
  const [, navigate] = useLocation();
  const wanted = params.mix ? stripOfPage(params.mix) : null;
  const firstMix = known.find((strip) => isOf(strip, "mix"));
  const bus =
    wanted && known.includes(wanted) ? wanted : params.mix ? "house" : (firstMix ?? "house");
  const go = (strip: string | null) => navigate(strip ? `/mixes/${pageOf(strip)}` : "/mixes");
  return (
    <>
      <ViewHead title="Mixes">
        <Button tone="main" onClick={() => setMaking(true)}>
          New mix…
        </Button>
        <Free of={["mixes", "groups", "matrices"]} />
      </ViewHead>
      {phone && <StripChoice known={known} bus={bus} onGo={go} />}
      <div className="grid grid-cols-[156px_minmax(0,1fr)] phone:grid-cols-1 phone:grid-rows-1 gap-3 flex-1 min-h-0 least:flex-none least:h-[760px]">
        {!phone && (
          <StripList>
            {SECTIONS.map(([title, kind]) => {
              const strips = known.filter((strip) =>
                kind ? isOf(strip, kind) : stripKind(strip)?.alone,
              );
              return (
                strips.length > 0 && (
                  <Fragment key={title}>
                    <h2 className="text-[12px] text-faint px-1 pt-2 first:pt-0">{title}</h2>
                    <ul className="flex flex-col gap-[3px]" aria-label={title}>
                      {strips.map((one) => (
                        <MixItem key={one} bus={one} here={one === bus} />
                      ))}
                    </ul>
                  </Fragment>
                )
              );
            })}
            {!firstMix && (
              <p className="text-soft text-[13px] p-2">
                No mix yet. Make one for each performer, all in one step.
              </p>
            )}
          </StripList>
        )}
        <section aria-label={`Into ${bus}`} className="flex flex-col min-h-0 min-w-0">
          <MixHead key={`head ${bus}`} bus={bus} onGo={go} />
          {isOf(bus, "return") ? <ReturnNote bus={bus} /> : <Sends key={bus} bus={bus} />}
        </section>
      </div>
      <NewMixDialog open={making} onOpenChange={setMaking} onMade={go} />
    </>
  );
}

/** One stop for the Tab key: up and down walk the strips, Enter opens one. */
function StripList({ children }: { children: ReactNode }) {
  return (
    <div className="scrolls flex flex-col gap-[3px]" onKeyDown={walkLinks}>
      {children}
    </div>
  );
}

/** On a phone the strips are one field. */
function StripChoice({
  known,
  bus,
  onGo,
}: {
  known: readonly string[];
  bus: string;
  onGo: (strip: string) => void;
}) {
  const names = useShow((state) => known.map((strip) => stripName(state, strip)).join("\n")).split(
    "\n",
  );
  return (
    <Choice
      boxed
      label="Mix, group, matrix or return"
      className="h-11 mb-2 shrink-0 font-semibold"
      value={bus}
      options={known.map((strip, index) => [strip, `${names[index]} · ${inWords(strip)}`] as const)}
      onChange={onGo}
    />
  );
}

/** A return has nothing sent into it here; where it is heard is the table's to tell. */
function ReturnNote({ bus }: { bus: string }) {
  useEffect(() => select(bus), [bus]);
  return (
    <p className="text-soft p-3">
      Its sends into mixes stand in each mix, below the channels. Who hears it, and why, stands at
      the right and in{" "}
      <RouteLink to="/hears" className="text-sun-text underline">
        Who hears what
      </RouteLink>
      .
    </p>
  );
}

function MixItem({ bus, here }: { bus: string; here: boolean }) {
  const name = useShow((state) => stripName(state, bus));
  const { kind, number } = thingOf(bus);
  const colour = useShow((state) => (number ? String(valueIn(state, `${bus}/colour`)) : "sand"));
  const about = useShow((state) => {
    if (!number) return kind === "house" ? "left and right" : "one side";
    if (kind === "return")
      return socketName(state, valueIn(state, `${bus}/source`) as string | null) || "no source";
    const format = String(valueIn(state, `${bus}/format`));
    return kind === "mix"
      ? `${SERVES_WORD[String(valueIn(state, `${bus}/serves`))]}, ${format}`
      : format;
  });
  const muted = useShow((state) => valueIn(state, `${bus}/mute`) === true);
  const item = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (here) item.current?.scrollIntoView({ block: "nearest" });
  }, [here]);
  return (
    <li ref={item}>
      <RouteLink
        to={`/mixes/${pageOf(bus)}`}
        tabIndex={here ? 0 : -1}
        aria-current={here ? "true" : undefined}
        className={`flex items-stretch gap-2 h-11 rounded-lg ${here ? "bg-raise" : "bg-floor hover:bg-card"}`}
      >
        <ColourBar colour={colour} />
        <span className="flex-1 min-w-0 py-1 leading-tight">
          <span dir="auto" className={`block truncate ${here ? "font-semibold" : ""}`}>
            {name}
          </span>
          <span className="block text-[12px] text-faint">
            {number > 0 && `${number} · `}
            {about}
          </span>
        </span>
        {muted && (
          <span className="self-center mr-2 text-coral text-[12px] font-semibold">muted</span>
        )}
      </RouteLink>
    </li>
  );
}
