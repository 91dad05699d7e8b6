import { useState } from "react";
import { inWords, numberOf } from "../../data/address";
import type { EarLink, NewCode, NewLink, EarRow as Row } from "../../data/types";
import {
  stripName,
  useLevel,
  useLink,
  useOn,
  useParameter,
  useShow,
  useText,
  useValue,
} from "../../data/use";
import { levelText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Toggle } from "../../ui/Toggle";
import { Toolbar } from "../../ui/Toolbar";
import { TypedField } from "../../ui/TypedField";
import { Group } from "./Group";
import { PhonesGroup } from "./PhonesGroup";

interface Props {
  row: Row;
  onStart: () => void;
  onLock: () => void;
  onBeside: () => void;
  /** All links of the show, and how they came to be others. */
  links: readonly EarLink[];
  onLinks: (made: readonly NewLink[]) => void;
  onCodes: (codes: readonly NewCode[]) => void;
}

/** A mix unfolded: shaped as a whole, its start and ends, whose it is, and what phones may see. */
export function EarDetail({ row, onStart, onLock, onBeside, links, onLinks, onCodes }: Props) {
  return (
    <section
      aria-label={`${row.name}, unfolded`}
      className="grid gap-x-6 gap-y-3 grid-cols-[repeat(auto-fit,minmax(min(100%,330px),1fr))] bg-floor border border-line rounded-xl px-3 py-3 mb-2"
    >
      <Shape row={row} onBeside={onBeside} />
      <Start row={row} onStart={onStart} />
      <Ends row={row} onLock={onLock} />
      <Seen row={row} />
      <PhonesGroup row={row} links={links} onLinks={onLinks} onCodes={onCodes} />
      <Beside row={row} />
    </section>
  );
}

function Shape({ row, onBeside }: Pick<Props, "row" | "onBeside">) {
  const link = useLink();
  const mixes = inWords(row.mix);
  const [other, setOther] = useState("");
  const others = useShow((state) =>
    state.mixes
      .filter((n) => n !== numberOf(row.mix))
      .map((n) => `mix/${n}\t${stripName(state, `mix/${n}`)}`)
      .join("\n"),
  )
    .split("\n")
    .filter(Boolean)
    .map((one) => one.split("\t") as [string, string]);
  const [strips, setStrips] = useState("");
  const trim = (step: string) => void link.do({ action: "trim_mixes", mixes, step, strips });
  return (
    <Group title="What is sent to it, distances kept">
      <Toolbar
        label={`Trim ${row.name}`}
        className="gap-1.5"
        tools={Object.fromEntries(
          (["−3", "−1", "+1", "+3"] as const).map((word) => [
            word,
            <Button
              key={word}
              small
              className="coarse:h-11"
              aria-label={`${word} dB for ${row.name}`}
              onClick={() => trim(word)}
            >
              {word}
            </Button>,
          ]),
        )}
      />
      <TypedField
        boxed
        label={`Only these of ${row.name}`}
        value={strips}
        placeholder="all, or bass, kick"
        className="w-32 h-7 coarse:h-11"
        onCommit={setStrips}
      />
      <TypedField
        boxed
        label={`Trim ${row.name} by dB`}
        value=""
        placeholder="+2.5"
        className="w-16 h-7 coarse:h-11"
        onCommit={(text) => text.trim() && trim(text)}
      />
      <span className="basis-full h-0" />
      <Choice
        boxed
        label={`Another mix than ${row.name}`}
        value={other}
        options={[["", "another mix"], ...others]}
        onChange={setOther}
        className="w-40"
      />
      <Toolbar
        label={`${row.name} and another`}
        className="gap-1.5"
        tools={{
          copy: (
            <Button
              small
              className="coarse:h-11"
              disabled={!other}
              title="It gets the sends, level and start of the other"
              onClick={() =>
                void link.do({ action: "copy_mix", source: other, mixes }, { quiet: false })
              }
            >
              Copy it here
            </Button>
          ),
          swap: (
            <Button
              small
              className="coarse:h-11"
              disabled={!other}
              title="Each gets the sends, level and start of the other"
              onClick={() =>
                void link.do({ action: "swap_mixes", one: row.mix, other }, { quiet: false })
              }
            >
              Swap
            </Button>
          ),
          beside: (
            <Button small className="coarse:h-11" onClick={onBeside}>
              Side by side…
            </Button>
          ),
        }}
      />
    </Group>
  );
}

function Start({ row, onStart }: Pick<Props, "row" | "onStart">) {
  const link = useLink();
  const recipe = useText(`${row.mix}/recipe`);
  const mixes = inWords(row.mix);
  return (
    <Group title={row.started ? "Its start: what start over leads back to" : "No start was taken"}>
      <Toolbar
        label={`Start of ${row.name}`}
        className="gap-1.5"
        tools={{
          start: (
            <Button small className="coarse:h-11" onClick={onStart}>
              Start it…
            </Button>
          ),
          take: (
            <Button
              small
              className="coarse:h-11"
              onClick={() => void link.do({ action: "take_starts", mixes }, { quiet: false })}
            >
              As it is now is the start
            </Button>
          ),
          over: (
            <Button
              small
              className="coarse:h-11"
              disabled={!row.started}
              onClick={() => void link.do({ action: "start_over", mixes }, { quiet: false })}
            >
              Start over
            </Button>
          ),
        }}
      />
      <label className="basis-full flex items-center gap-2 text-faint text-[13px]">
        Recipe
        <TypedField
          boxed
          label={`Recipe of ${row.name}`}
          value={recipe}
          placeholder="self +6, bass +3, click = -5"
          maxLength={400}
          className="flex-1 h-7 coarse:h-11"
          onCommit={(text) => void link.type(`${row.mix}/recipe`, text)}
        />
      </label>
    </Group>
  );
}

function Ends({ row, onLock }: Pick<Props, "row" | "onLock">) {
  const link = useLink();
  const fader = useLevel(`${row.mix}/fader`);
  const ceiling = useLevel(`${row.mix}/ceiling`);
  const limit = Number(useValue(`${row.mix}/limit`));
  // where they are as nobody set them, they end nothing
  const none = {
    ceiling: Number(useParameter(`${row.mix}/ceiling`).default),
    limit: Number(useParameter(`${row.mix}/limit`).default),
  };
  const locked = useOn(`${row.mix}/locked`);
  const field = (leaf: string, word: string, value: string, tip: string, end?: number) => (
    <label key={leaf} className="flex items-center gap-1.5 text-faint text-[13px]" title={tip}>
      {word}
      <TypedField
        boxed
        align="right"
        label={`${word} of ${row.name}`}
        value={value}
        placeholder={end === undefined ? "" : "none"}
        className="w-[62px] h-7 coarse:h-11"
        onCommit={(text) => void link.type(`${row.mix}/${leaf}`, text.trim() || String(end ?? ""))}
      />
    </label>
  );
  return (
    <Group title="What phones may do, in dB">
      {field("fader", "Level", levelText(fader), "The mix's own fader")}
      {field(
        "ceiling",
        "Ceiling",
        ceiling === none.ceiling ? "" : levelText(ceiling),
        "No phone raises the level above it",
        none.ceiling,
      )}
      {field(
        "limit",
        "Limit",
        limit === none.limit ? "" : `+${limit}`,
        "How far above its start a phone may raise a single send",
        none.limit,
      )}
      <Button
        small
        className="coarse:h-11"
        tone={locked ? "danger" : "plain"}
        onClick={() =>
          locked
            ? void link.do({
                action: "lock_mixes",
                mixes: inWords(row.mix),
                locked: false,
              })
            : onLock()
        }
      >
        {locked ? "Unlock" : "Lock…"}
      </Button>
    </Group>
  );
}

function Seen({ row }: { row: Row }) {
  const link = useLink();
  const families = useShow((state) => state.catalogue!.at("line/1/family").options ?? NONE);
  const hidden = useShow((state) =>
    families.filter((one) => state.values.get(`${row.mix}/shows_${one}`) === false).join(" "),
  ).split(" ");
  return (
    <Group title="Phones show, of what is sent">
      <Toolbar
        label={`Families that phones of ${row.name} show`}
        className="gap-1"
        tools={Object.fromEntries(
          families.map((family) => [
            family,
            <Toggle
              key={family}
              label={`${family} on phones of ${row.name}`}
              pressed={!hidden.includes(family)}
              onChange={(on) => void link.put(`${row.mix}/shows_${family}`, on)}
            >
              {family}
            </Toggle>,
          ]),
        )}
      />
    </Group>
  );
}

const NONE: readonly string[] = [];

/** Whose it is, and what else is to know of it. */
function Beside({ row }: { row: Row }) {
  const link = useLink();
  const aim = Number(useValue(`${row.mix}/aim`));
  return (
    <Group title="Themselves">
      <label className="flex items-center gap-1.5 text-faint text-[13px]">
        Self
        <TypedField
          boxed
          label={`Self of ${row.name}`}
          value={row.self_names.join(", ")}
          placeholder="channels, such as 7, 9"
          className="w-44 h-7 coarse:h-11"
          title="By names of parts and performers, unless channels are typed; empty: by names again"
          onCommit={(text) =>
            void link.do({ action: "set_self", mix: row.mix, channels: text }, { quiet: false })
          }
        />
      </label>
      <label className="flex items-center gap-1.5 text-faint text-[13px]">
        Aim
        <TypedField
          boxed
          align="right"
          label={`Aim of ${row.name} in dB`}
          value={levelText(aim)}
          className="w-[62px] h-7 coarse:h-11"
          onCommit={(text) => void link.type(`${row.mix}/aim`, text)}
        />
      </label>
      <p className="basis-full text-[13px] text-soft break-words">
        {[
          row.late_ms !== null && `themselves arrive ${row.late_ms.toFixed(1)} ms late`,
          row.taps.length > 0 && `tapped otherwise than the rest: ${row.taps.join(", ")}`,
          row.unknown.length > 0 && `level not known: ${row.unknown.join(", ")}`,
        ]
          .filter(Boolean)
          .join("; ")}
      </p>
    </Group>
  );
}
