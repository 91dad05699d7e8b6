import { useMemo, useState } from "react";
import { inWords, isOf, numberOf } from "../../data/address";
import { useSetByHand } from "../../data/hand";
import { useTrueLevel } from "../../data/ruled";
import { colourOf, type ShowState, valueIn } from "../../data/show";
import type { Ask } from "../../data/types";
import { stripName, useShow } from "../../data/use";
import { cellText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { InRow, useRows, useTabIndex } from "../../ui/reach";
import { Toggle } from "../../ui/Toggle";
import { inOrder, KIND, type Kind } from "./kinds";

interface Props {
  ruler: string;
  kind: Kind;
  onAsk: (ask: Ask) => void;
}

/** Who is in it: typed, by family, or taken out one by one. */
export function Members({ ruler, kind, onAsk }: Props) {
  const [text, setText] = useState("");
  const held = useShow((state) => state.members.get(ruler));
  const members = useMemo(() => inOrder(held ?? new Set()), [held]);
  const rows = useRows(members, { across: true });
  const families = useShow((state) => state.catalogue!.at("line/1/family").options ?? []);
  const give = (on: boolean) => {
    if (!text.trim()) return;
    onAsk({ action: "members", ruler, strips: text, on });
    setText("");
  };
  return (
    <section aria-label="Members" className="flex flex-col gap-2 shrink-0">
      <form
        className="flex items-center gap-2 flex-wrap"
        onSubmit={(event) => {
          event.preventDefault();
          give(true);
        }}
      >
        <h2 className="font-title font-semibold text-[17px]">
          Members <span className="text-faint font-normal">{members.length}</span>
        </h2>
        <input
          aria-label="Strips to add or take out"
          placeholder={kind === "dca" ? "1-8, Kick, drums, dca 3" : "1-8, Kick, drums"}
          value={text}
          maxLength={400}
          onChange={(event) => setText(event.currentTarget.value)}
          className="h-8 coarse:h-11 w-52 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
        />
        <Button small type="submit" disabled={!text.trim()}>
          Add
        </Button>
        <Button small disabled={!text.trim()} onClick={() => give(false)}>
          Take out
        </Button>
        <Choice
          boxed
          label="Add a family of lines"
          value=""
          options={[["", "Add a family…"], ...families.map((one) => [one, one] as const)]}
          onChange={(family) => family && onAsk({ action: "members", ruler, family, on: true })}
        />
      </form>
      {members.length === 0 ? (
        <p className="text-soft">
          Nobody yet: type strips, add a family, or paint in the table of all {KIND[kind].title}.
        </p>
      ) : (
        <ul {...rows.hand} className="flex flex-wrap gap-1.5">
          {members.map((member) => (
            <InRow key={member} of={member} rows={rows}>
              <Member
                member={member}
                ruler={ruler}
                onOut={() =>
                  onAsk({
                    action: "moves",
                    moves: [{ address: `${member}/${ruler}/on`, value: false }],
                  })
                }
              />
            </InRow>
          ))}
        </ul>
      )}
    </section>
  );
}

const carriesPans = (state: ShowState, ruler: string): boolean =>
  isOf(ruler, "gang") &&
  ["carries_pan", "carries_sends"].some((leaf) => valueIn(state, `${ruler}/${leaf}`) === true);

function Member({ member, ruler, onOut }: { member: string; ruler: string; onOut: () => void }) {
  const name = useShow((state) => stripName(state, member));
  const colour = useShow((state) => colourOf(state, member));
  const level = useTrueLevel(member);
  // in a gang of pans: whether this one goes the other way
  const mirrors = useShow(
    (state) => carriesPans(state, ruler) && isOf(member, "channel", "return", "group"),
  );
  const mirrored = useShow((state) => mirrors && valueIn(state, `${member}/pan_mirrored`) === true);
  const set = useSetByHand();
  const tabIndex = useTabIndex();
  const alone = useShow(
    (state) => state.reach?.ruler === ruler && state.reach.alone.includes(member),
  );
  const number = isOf(member, "channel") ? numberOf(member) : inWords(member).replace("dca", "DCA");
  return (
    <li
      data-row={member}
      data-subject={member}
      className="flex items-center gap-2 max-w-full h-8 coarse:h-11 pl-2 rounded-lg bg-card border border-line text-[13.5px]"
      style={{ borderLeft: `4px solid var(--strip-${colour})` }}
    >
      <span dir="auto" className="min-w-0 max-w-44 truncate">
        {name}
      </span>
      <span className="text-faint text-[12px]">
        {member === "house" || member === "mono" ? "" : number}
      </span>
      <span className="text-soft">{cellText(level)}</span>
      {mirrors && (
        <Toggle
          label={`Pan mirrored, ${name}`}
          pressed={mirrored}
          onChange={(on) => set(`${member}/pan_mirrored`, on ? "on" : "off")}
        >
          mirrored
        </Toggle>
      )}
      {alone && <span className="text-sea text-[12px]">alone</span>}
      <button
        type="button"
        tabIndex={tabIndex}
        aria-label={`Take ${name} out`}
        title="Take out"
        onClick={onOut}
        className="self-stretch px-2 min-w-6 coarse:min-w-11 rounded-r-lg text-faint hover:text-coral cursor-pointer"
      >
        ×
      </button>
    </li>
  );
}
