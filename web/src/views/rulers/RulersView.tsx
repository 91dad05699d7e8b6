import { useState } from "react";
import { Link as RouteLink, useParams } from "wouter";
import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Empty, ViewHead } from "../../ui/Panel";
import { KIND, type Kind } from "./kinds";
import { MembersTable } from "./MembersTable";
import { RulerPage } from "./RulerPage";

/** DCAs, or mute groups: strips against them, or the page of one. */
export function RulersView({ kind }: { kind: Kind }) {
  const { number } = useParams<{ number?: string }>();
  const words = KIND[kind];
  const known = useShow((state) => (kind === "dca" ? state.dcas : state.mute_groups));
  const strips = useShow((state) => state.channels.length + state.mixes.length);
  const one = number && /^\d+$/.test(number) ? `${kind}/${number}` : null;
  const most = useShow((state) =>
    kind === "dca" ? (state.desk?.dcas ?? 0) : (state.desk?.mute_groups ?? 0),
  );
  return (
    <>
      <ViewHead title={words.title}>
        {one ? (
          <RouteLink
            to={`/${words.view}`}
            className="text-sun-text underline coarse:h-11 inline-flex items-center"
          >
            {words.all}
          </RouteLink>
        ) : (
          <NewRulers kind={kind} left={most - known.length} />
        )}
        {!one && kind === "mute_group" && <WholeGroups />}
      </ViewHead>
      {one && known.includes(Number(number)) ? (
        <RulerPage key={one} ruler={one} kind={kind} />
      ) : known.length === 0 ? (
        <Empty title={`No ${words.title} yet`}>
          <p>{words.first}</p>
          {strips === 0 && (
            <RouteLink to="/patch" className="text-sun-text underline">
              First give channels a source, in Patch
            </RouteLink>
          )}
        </Empty>
      ) : (
        <MembersTable kind={kind} rulers={known} />
      )}
    </>
  );
}

/** A set of names, typed or pasted: one to a comma or line. */
function NewRulers({ kind, left }: { kind: Kind; left: number }) {
  const link = useLink();
  const words = KIND[kind];
  const [text, setText] = useState("");
  const names = text
    .split(/[,;\n\t]/)
    .map((name) => name.trim())
    .filter(Boolean);
  const make = async () => {
    if (names.length === 0) return;
    if (await link.do({ action: "make_rulers", kind, names }, { quiet: false })) setText("");
  };
  return (
    <form
      className="flex items-center gap-2 flex-1 min-w-56 max-w-[440px]"
      onSubmit={(event) => {
        event.preventDefault();
        void make();
      }}
    >
      <input
        aria-label={`Names of new ${words.title}`}
        placeholder={words.example}
        value={text}
        maxLength={2000}
        onChange={(event) => setText(event.currentTarget.value)}
        onPaste={(event) => {
          // a column of a spreadsheet comes with line ends, which a field would swallow
          const pasted = event.clipboardData.getData("text");
          if (!/[\n\t]/.test(pasted)) return;
          event.preventDefault();
          setText(`${text}${pasted.trim().replace(/[\n\t\r]+/g, ", ")}`);
        }}
        className="h-9 coarse:h-11 flex-1 min-w-0 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
      />
      <Button tone="main" type="submit" disabled={names.length === 0}>
        {names.length > 1 ? `Make ${names.length}` : "Make"}
      </Button>
      <span className="text-faint text-[13px] whitespace-nowrap">{left} free</span>
    </form>
  );
}

/** Everything that musicians plug in, and everything on their heads: each in one action. */
function WholeGroups() {
  const link = useLink();
  return (
    <>
      <Button
        title="A hard mute of every input, while musicians plug in"
        onClick={() => void link.do({ action: "mute_all", what: "inputs" }, { quiet: false })}
      >
        + All inputs
      </Button>
      <Button
        title="A hard mute of every pair of ears"
        onClick={() => void link.do({ action: "mute_all", what: "ears" }, { quiet: false })}
      >
        + All ears
      </Button>
    </>
  );
}
