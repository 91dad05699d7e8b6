import { useMemo, useState } from "react";
import { thingOf } from "../../data/address";
import type { Ask } from "../../data/types";
import { stripName, useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Empty } from "../../ui/Panel";
import { Taking } from "../../ui/Taking";

const KINDS = [
  ["channel", "channels"],
  ["mix", "mixes"],
] as const;

/** Odd and even linked: typed, or those of all stereo lines; what becomes equal is shown first. */
export function Pairs() {
  const link = useLink();
  const held = useShow((state) => state.pairs);
  const pairs = useMemo(
    () => [...held].map(([even, odd]) => [odd, even] as const).sort(byNumber),
    [held],
  );
  const [kind, setKind] = useState<"channel" | "mix">("channel");
  const [text, setText] = useState("");
  const [spread, setSpread] = useState(true);
  const [showing, setShowing] = useState<Ask | null>(null);
  const show = (strips: string) =>
    setShowing({ action: "link_pairs", kind: strips ? kind : "channel", strips, on: true, spread });
  return (
    <div className="flex flex-col gap-3 flex-1 min-h-0 scrolls pb-3">
      <form
        className="flex items-center gap-2 flex-wrap shrink-0"
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim()) show(text);
        }}
      >
        <input
          aria-label="Pairs to link"
          placeholder="13-16, 21"
          value={text}
          maxLength={200}
          onChange={(event) => setText(event.currentTarget.value)}
          className="h-9 coarse:h-11 w-36 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
        />
        <Choice
          boxed
          label="Channels or mixes"
          value={kind}
          options={KINDS}
          onChange={(value) => setKind(value as "channel" | "mix")}
        />
        <label className="flex items-center gap-1.5 text-soft text-[13.5px] coarse:min-h-11">
          <input
            type="checkbox"
            checked={spread}
            onChange={(event) => setSpread(event.currentTarget.checked)}
            className="w-4 h-4 accent-[var(--sun)]"
          />
          pan left and right what is in the centre
        </label>
        <Button type="submit" tone="main" disabled={!text.trim()}>
          Link
        </Button>
        <Button onClick={() => show("")}>Link all stereo lines</Button>
      </form>
      {showing && (
        <Taking
          ask={showing}
          onDone={() => {
            setShowing(null);
            setText("");
          }}
        />
      )}
      {pairs.length === 0 ? (
        <Empty title="No pair yet">
          <p>
            An odd channel or mix and the even above it can be one: both sides stay equal in level,
            mutes, sends and members, their pans mirror one another, trims and gains keep their
            difference.
          </p>
        </Empty>
      ) : (
        <ul className="flex flex-col gap-1" aria-label="Pairs">
          {pairs.map(([odd, even]) => (
            <Pair
              key={odd}
              odd={odd}
              even={even}
              onPart={() => {
                const { kind, number } = thingOf(odd);
                const ask = {
                  action: "link_pairs",
                  kind: kind as "channel" | "mix",
                  strips: `${number}`,
                  on: false,
                } as const;
                void link.do(ask, { quiet: false });
              }}
            />
          ))}
        </ul>
      )}
    </div>
  );
}

function Pair({ odd, even, onPart }: { odd: string; even: string; onPart: () => void }) {
  const left = useShow((state) => stripName(state, odd));
  const right = useShow((state) => stripName(state, even));
  const colour = useShow((state) => String(state.values.get(`${odd}/colour`) ?? "sand"));
  const { kind, number } = thingOf(odd);
  return (
    <li
      data-subject={odd}
      className="flex items-center gap-3 min-h-9 coarse:min-h-11 pl-3 pr-1 rounded-lg bg-card border border-line"
      style={{ borderLeft: `4px solid var(--strip-${colour})` }}
    >
      <span className="text-faint w-20 shrink-0 whitespace-nowrap">
        {kind === "mix" && "mix "}
        {number}–{number + 1}
      </span>
      <span dir="auto" className="flex-1 min-w-0 truncate">
        <bdi>{left}</bdi> <span className="text-faint">and</span> <bdi>{right}</bdi>
      </span>
      <Button small onClick={onPart} aria-label={`Part ${left} and ${right}`}>
        Part
      </Button>
    </li>
  );
}

function byNumber(one: readonly [string, string], other: readonly [string, string]): number {
  const { kind, number } = thingOf(one[0]);
  const to = thingOf(other[0]);
  return kind === to.kind ? number - to.number : kind < to.kind ? -1 : 1;
}
