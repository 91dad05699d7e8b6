import { Link as RouteLink, useLocation, useParams } from "wouter";
import { useLink, useShow } from "../../data/use";
import { VIEW_WORD } from "../../frame/places";
import { ViewHead } from "../../frame/ViewHead";
import { Button } from "../../ui/Button";
import { NamesForm } from "../../ui/NamesForm";
import { Empty } from "../../ui/Panel";
import { Tabs } from "../../ui/Tabs";
import { KIND, type Kind, LISTED } from "./kinds";
import { MembersTable } from "./MembersTable";
import { Pairs } from "./Pairs";
import { RulerPage } from "./RulerPage";

/** DCAs, mute groups or gangs: strips against them, or the page of one; beside gangs the pairs. */
export function RulersView({ kind }: { kind: Kind }) {
  const link = useLink();
  const { number } = useParams<{ number?: string }>();
  const words = KIND[kind];
  const known = useShow((state) => state[LISTED[kind]]);
  const pairs = useShow((state) => state.pairs.size);
  const [, navigate] = useLocation();
  const strips = useShow((state) => state.channels.length + state.mixes.length);
  const one = number && /^\d+$/.test(number) ? `${kind}/${number}` : null;
  const most = useShow((state) => state.desk?.[LISTED[kind]] ?? 0);
  const pairing = kind === "gang" && number === "pairs";
  return (
    <>
      <ViewHead title={VIEW_WORD[words.view]!}>
        {kind === "gang" && !one && (
          <Tabs
            label="Gangs or pairs"
            tabs={[
              { key: "gangs", word: "Gangs", note: String(known.length) },
              { key: "pairs", word: "Pairs", note: String(pairs) },
            ]}
            chosen={pairing ? "pairs" : "gangs"}
            onChoose={(key) => navigate(key === "pairs" ? "/gangs/pairs" : "/gangs")}
          />
        )}
        {pairing ? null : one ? (
          <RouteLink
            to={`/${words.view}`}
            className="text-sun-text underline coarse:h-11 inline-flex items-center"
          >
            {words.all}
          </RouteLink>
        ) : (
          <>
            <NamesForm
              label={`Names of new ${words.title}`}
              placeholder={words.example}
              onMake={(names) => link.do({ action: "make_rulers", kind, names }, { quiet: false })}
            />
            <span className="text-faint text-[13px] whitespace-nowrap">
              {most - known.length} free
            </span>
          </>
        )}
        {!one && kind === "mute_group" && <WholeGroups />}
      </ViewHead>
      {pairing ? (
        <Pairs />
      ) : one && known.includes(Number(number)) ? (
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

/** Everything that musicians plug in, and everything on their heads: each in one action. */
function WholeGroups() {
  const link = useLink();
  return (
    <>
      <Button
        title="A seal over every input, while musicians plug in: nothing gets out"
        onClick={() => void link.do({ action: "mute_all", what: "inputs" }, { quiet: false })}
      >
        + All inputs
      </Button>
      <Button
        title="A seal over every pair of ears: nothing gets out"
        onClick={() => void link.do({ action: "mute_all", what: "ears" }, { quiet: false })}
      >
        + All ears
      </Button>
    </>
  );
}
