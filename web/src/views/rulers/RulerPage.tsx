import { useEffect } from "react";
import { useLocation } from "wouter";
import { valueIn } from "../../data/show";
import { stripName, useLink, useOn, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { useJoining } from "../../ui/Joining";
import { NameField } from "../../ui/NameField";
import { OwnWord } from "../../ui/OwnWord";
import { StripHand } from "../../ui/StripHand";
import { SwitchKey } from "../../ui/SwitchKey";
import { TakesChoice } from "../../ui/TakesChoice";
import { RuledBy } from "../../ui/TrueLevel";
import { GangHand } from "./GangHand";
import { KIND, type Kind } from "./kinds";
import { Members } from "./Members";
import { ReachTable } from "./ReachTable";

const NO_COLOURS: readonly string[] = [];

/** One DCA, mute group or gang: its hand, who is in it, and who loses or gains what by it. */
export function RulerPage({ ruler, kind }: { ruler: string; kind: Kind }) {
  const link = useLink();
  const [, navigate] = useLocation();
  const name = useShow((state) => stripName(state, ruler));
  const colour = useShow((state) => String(valueIn(state, `${ruler}/colour`)));
  const colours = useShow((state) => state.catalogue!.at(`${ruler}/colour`).options ?? NO_COLOURS);
  const joining = useJoining();
  useEffect(() => {
    if (kind === "gang") return; // it silences nobody: nothing to tell of its reach
    link.watch({ ruler });
    return () => link.watch({ ruler: null });
  }, [link, ruler, kind]);
  const clear = async () => {
    if (await joining.join({ action: "clear_ruler", ruler })) navigate(`/${KIND[kind].view}`);
  };
  return (
    <div className="flex flex-col gap-3 flex-1 min-h-0 scrolls pb-3">
      {joining.bar}
      <section
        aria-label={`${KIND[kind].one} ${name}`}
        className="rounded-xl bg-floor border border-line px-3 py-2.5 flex flex-col gap-2 shrink-0"
        style={{ borderTop: `4px solid var(--strip-${colour})` }}
      >
        <div className="flex items-center gap-2 flex-wrap">
          <NameField
            of={ruler}
            label={`Name of the ${KIND[kind].one}`}
            className="flex-1 min-w-40 font-semibold h-8"
          />
          <Choice
            boxed
            label={`Colour of the ${KIND[kind].one}`}
            value={colour}
            options={colours.map((one) => [one, one] as const)}
            onChange={(value) => void link.put(`${ruler}/colour`, value)}
          />
          <Button small tone="danger" onClick={() => void clear()}>
            Clear
          </Button>
        </div>
        {kind !== "gang" && <TakesChoice of={ruler} name={name} />}
        {kind === "dca" ? (
          <DcaHand ruler={ruler} name={name} colour={colour} />
        ) : kind === "gang" ? (
          <GangHand ruler={ruler} name={name} />
        ) : (
          <GroupHand ruler={ruler} name={name} />
        )}
      </section>
      {kind === "mute_group" && <ReachTable ruler={ruler} kind={kind} />}
      <Members ruler={ruler} kind={kind} onAsk={(ask) => void joining.join(ask)} />
      {kind === "dca" && <ReachTable ruler={ruler} kind={kind} />}
    </div>
  );
}

function DcaHand({ ruler, name, colour }: { ruler: string; name: string; colour: string }) {
  return (
    <>
      <div className="flex items-center gap-2">
        <StripHand
          strip={ruler}
          name={name}
          colour={colour}
          fader={`Fader of ${name}`}
          level={`Level of ${name} in dB`}
        />
      </div>
      <RuledBy strip={ruler} />
    </>
  );
}

function GroupHand({ ruler, name }: { ruler: string; name: string }) {
  const link = useLink();
  const on = useOn(`${ruler}/on`);
  const safe = useOn(`${ruler}/safe`);
  const seal = useOn(`${ruler}/hard`);
  const closed = useShow((state) => (state.reach?.ruler === ruler ? state.reach.closed : null));
  const cells = closed === null ? "…" : `${closed} cell${closed === 1 ? "" : "s"}`;
  return (
    <div className="flex items-center gap-2 flex-wrap">
      <Button
        tone={on ? "danger" : "main"}
        disabled={safe}
        aria-pressed={on}
        onClick={() => void link.put(`${ruler}/on`, !on)}
      >
        {on ? `Open ${cells} again` : `${seal ? "Seal" : "Mute"} ${cells}`}
      </Button>
      <SwitchKey
        address={`${ruler}/safe`}
        of={name}
        word={["unlocked: lock it", "locked: press to unlock"]}
        tone="sun"
      />
      <SwitchKey
        address={`${ruler}/hard`}
        of={name}
        word={["a mute, like the key: make it a seal", "a seal: nothing gets out"]}
        tone="coral"
      />
      <span className="text-faint text-[13px]">
        <OwnWord word="Seal">what is a seal</OwnWord>
      </span>
    </div>
  );
}
