import { useEffect, useState } from "react";
import { Link as RouteLink, useLocation, useParams } from "wouter";
import { isOf, isSource, thingOf } from "../../data/address";
import { colourOf } from "../../data/show";
import { useStrips } from "../../data/strips";
import type { StripPath } from "../../data/types";
import { select, stripName, useLink, useShow } from "../../data/use";
import { cellText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { PinKey } from "../../ui/PinKey";
import { useRows } from "../../ui/reach";
import { Toolbar } from "../../ui/Toolbar";
import { Waiting } from "../../ui/Waiting";
import { ChannelDialog } from "./ChannelDialog";
import { ExpectedLevel } from "./ExpectedLevel";
import { FittingLine } from "./FittingLine";
import { PathLine } from "./PathLine";
import { PresetsDialog } from "./PresetsDialog";
import { StagePanel } from "./StagePanel";
import { STAGES } from "./stages";

/** One strip from top to bottom; the stage looked at last stays open from strip to strip. */
export function StripView() {
  const link = useLink();
  const { kind, number } = useParams<{ kind?: string; number?: string }>();
  const [, navigate] = useLocation();
  const strips = useStrips();
  const selected = useShow((state) => state.selected?.source);
  const asked = kind ? (number ? `${kind}/${number}` : kind) : selected;
  const strip = asked && strips.includes(asked) ? asked : (strips[0] ?? "house");
  const [stage, setStage] = useState(() => sessionStorage.getItem("stage") ?? "eq");
  const path = useShow((state) => (state.path?.strip === strip ? state.path : null));
  const channels = useShow((state) => state.channels.length);
  useEffect(() => {
    link.watch({ strip });
    if (isSource(strip)) select(strip);
    else select(null, strip);
  }, [link, strip]);
  useEffect(() => () => link.watch({ strip: null }), [link]);
  const choose = (key: string) => {
    setStage(key);
    sessionStorage.setItem("stage", key);
  };
  const place = strips.indexOf(strip);
  const step = (by: number) => {
    const next = strips[place + by];
    if (next) navigate(`/strip/${next}`, { replace: true });
  };
  if (channels === 0 && strip === "house" && !kind)
    return (
      <Empty title="No strip yet">
        <p>A strip is here once a channel has a source.</p>
        <RouteLink to="/patch" className="text-sun-text underline">
          Give channels their sources, in Patch
        </RouteLink>
      </Empty>
    );
  // what this strip has not (a bus has no gate) is shown by what is nearest
  const shown = path?.beads.some((bead) => bead.key === stage) ? stage : "eq";
  return (
    <div className="relative flex flex-col flex-1 min-h-0 scrolls pb-3">
      <Head strip={strip} path={path} before={strips[place - 1]} after={strips[place + 1]} />
      {isOf(strip, "channel") && <NamedFitting key={strip} channel={strip} />}
      {path ? (
        <>
          <PathLine path={path} chosen={shown} onChoose={choose} onStep={step} />
          <div className="flex gap-3 flex-wrap items-start">
            <div className="flex-[3_1_440px] min-w-0 flex">
              <NamedPanel strip={strip} stage={shown} />
            </div>
            {path.reaches.length > 0 && <Reaches reaches={path.reaches} strip={strip} />}
            {path.expected && <ExpectedLevel expected={path.expected} strip={strip} />}
          </div>
        </>
      ) : (
        <Waiting />
      )}
    </div>
  );
}

function NamedFitting({ channel }: { channel: string }) {
  const name = useShow((state) => stripName(state, channel));
  return <FittingLine channel={channel} name={name} />;
}

function NamedPanel({ strip, stage }: { strip: string; stage: string }) {
  const name = useShow((state) => stripName(state, strip));
  return STAGES.has(stage) ? (
    <StagePanel key={stage} strip={strip} stage={stage} name={name} />
  ) : null;
}

interface HeadProps {
  strip: string;
  path: StripPath | null;
  before?: string;
  after?: string;
}

function Head({ strip, path, before, after }: HeadProps) {
  const link = useLink();
  const [presets, setPresets] = useState(false);
  const name = useShow((state) => stripName(state, strip));
  const colour = useShow((state) => colourOf(state, strip));
  const { kind, number } = thingOf(strip);
  const [moving, setMoving] = useState(false);
  const [, navigate] = useLocation();
  const duplicate = async () => {
    const ask = { action: "duplicate_channel", channel: Number(number) } as const;
    // the first of its values is the copy's name: there it leads
    const shown = await link.try(ask, { before: true });
    const copy = typeof shown === "string" ? undefined : shown.values[0]?.strip;
    if ((await link.do(ask, { quiet: false })) && copy) navigate(`/strip/${copy}`);
  };
  return (
    <div className="flex items-center gap-3 py-2 min-h-14 shrink-0 flex-wrap">
      <Step to={before} arrow="↑" />
      <span
        className="w-1.5 h-7 rounded-full"
        style={{ background: `var(--strip-${colour})` }}
        aria-hidden
      />
      <h1 dir="auto" className="font-title text-[22px] font-bold min-w-0 truncate" title={name}>
        {kind === "channel" ? `${number} ${name}` : name}
      </h1>
      {kind !== "channel" && number && (
        <span className="text-faint">
          {kind} {number}
        </span>
      )}
      <PinKey address={`${strip}/pinned`} of={`all of ${name}`} word="pin" />
      <span className="flex-1" />
      <Toolbar
        label={`With ${name} as a whole`}
        tools={{
          presets: path && <Button onClick={() => setPresets(true)}>Presets…</Button>,
          duplicate: kind === "channel" && (
            <Button
              title="Into the next free channel, muted and without a source"
              onClick={() => void duplicate()}
            >
              Duplicate
            </Button>
          ),
          move: kind === "channel" && (
            <Button onClick={() => setMoving(true)}>Copy or move…</Button>
          ),
        }}
      />
      {path && (
        <PresetsDialog
          key={strip}
          strip={strip}
          name={name}
          presets={path.presets}
          open={presets}
          onOpenChange={setPresets}
        />
      )}
      {kind === "channel" && (
        <ChannelDialog
          key={`whole ${strip}`}
          strip={strip}
          name={name}
          open={moving}
          onOpenChange={setMoving}
        />
      )}
      <Step to={after} arrow="↓" />
    </div>
  );
}

function Step({ to, arrow }: { to?: string; arrow: string }) {
  const name = useShow((state) => (to ? stripName(state, to) : ""));
  if (!to) return null;
  const { kind, number } = thingOf(to);
  return (
    <RouteLink
      to={`/strip/${to}`}
      className="h-9 coarse:h-11 px-3 rounded-xl border border-line bg-card flex items-center gap-1.5 max-w-52 hover:bg-raise"
    >
      <span aria-hidden>{arrow}</span>
      <span dir="auto" className="truncate">
        {kind === "channel" ? `${number} ` : ""}
        {name}
      </span>
    </RouteLink>
  );
}

interface ReachesProps {
  reaches: readonly { listener: string; name: string; level_db: number }[];
  strip: string;
}

/** Who hears it, the loudest first; pressed, Why answers for that cell. */
function Reaches({ reaches, strip }: ReachesProps) {
  const rows = useRows(reaches.map((one) => one.listener));
  return (
    <section
      aria-label="Reaches"
      className="flex-[1_1_190px] min-w-44 flex flex-col gap-1"
      {...rows.hand}
    >
      <h2 className="text-soft">
        Reaches {reaches.length} listener{reaches.length === 1 ? "" : "s"}
      </h2>
      {reaches.map((one) => (
        <button
          key={one.listener}
          type="button"
          data-row={one.listener}
          tabIndex={rows.reached === one.listener ? 0 : -1}
          onClick={() => select(strip, one.listener)}
          className="relative h-8 coarse:h-11 rounded-md bg-quiet overflow-hidden flex items-center justify-between px-2.5 cursor-pointer text-[13.5px]"
        >
          <span
            aria-hidden
            className="absolute inset-y-0 left-0 bg-heard"
            style={{ width: `${Math.max(4, Math.min(100, ((one.level_db + 60) / 66) * 100))}%` }}
          />
          <span dir="auto" className="relative truncate">
            {one.name}
          </span>
          <span className="relative pl-2">{cellText(one.level_db)}</span>
        </button>
      ))}
    </section>
  );
}
