import { Fragment, useEffect, useRef } from "react";
import { Link as RouteLink, useLocation } from "wouter";
import { useShow } from "../data/use";
import { walkLinks } from "../ui/walk";
import { GROUPS, useFindings, useOutputs, useWork, viewOf } from "./work";

/** On the left: the work in its order, with counts, what the desk still has free, and what is wrong. */
export function SideBar() {
  const work = useWork();
  const outputs = useOutputs();
  const [path] = useLocation();
  const parts = GROUPS.flatMap((group) => work[group]);
  const here = parts.find(({ to }) => to === `/${viewOf(path)}`);
  // the one of the list that the Tab key stops at
  const stop = here ?? parts[0];
  return (
    <nav
      className="border-r border-line bg-floor flex flex-col min-h-0"
      aria-label="The work"
      onKeyDown={walkLinks}
    >
      <div className="flex-1 min-h-0 scrolls px-1.5 py-3 flex flex-col gap-0.5 [@media(height<900px)]:gap-0 [@media(height<900px)]:py-1.5">
        {GROUPS.map((group) => (
          <Fragment key={group}>
            <Group>{group}</Group>
            {work[group].map((part) => (
              <Item
                key={part.to}
                to={part.to}
                count={part.count}
                here={part === here}
                stop={part === stop}
              >
                {part.word}
              </Item>
            ))}
          </Fragment>
        ))}
        <span className="flex-1" />
        <Free outputs={outputs.all - outputs.taken} />
      </div>
      <FindingsItem />
    </nav>
  );
}

function Group({ children }: { children: string }) {
  return <h2 className="text-[12px] text-faint px-2 pt-2 pb-0.5 shrink-0">{children}</h2>;
}

interface ItemProps {
  to: string;
  count?: string;
  here: boolean;
  stop: boolean;
  children: string;
}

function Item({ to, count, here, stop, children }: ItemProps) {
  const item = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    if (here) item.current?.scrollIntoView({ block: "nearest" });
  }, [here]);
  return (
    <RouteLink
      ref={item}
      to={to}
      aria-current={here ? "page" : undefined}
      tabIndex={stop ? 0 : -1}
      className={`flex items-center h-8 [@media(height<900px)]:h-[28px] shrink-0 px-2 rounded-xl gap-1.5 whitespace-nowrap ${
        here ? "bg-raise font-semibold" : "text-soft hover:text-paper hover:bg-card"
      }`}
    >
      {here && <span className="w-1 h-4 rounded-full bg-sun -ml-1" aria-hidden />}
      <span className="flex-1">{children}</span>
      {count !== undefined && <span className="text-faint text-[12px]">{count}</span>}
    </RouteLink>
  );
}

/** What is wrong, always in sight; the last step of the arrows that walk the list. */
function FindingsItem() {
  const { settle, notes } = useFindings();
  const [path] = useLocation();
  const here = viewOf(path) === "findings";
  return (
    <RouteLink
      to="/findings"
      aria-current={here ? "page" : undefined}
      tabIndex={here ? 0 : -1}
      className={`shrink-0 border-t border-line px-3.5 py-2 ${here ? "bg-raise" : "hover:bg-card"}`}
    >
      <span className="block text-[12px] text-faint">Findings</span>
      <span className="flex justify-between flex-wrap gap-x-1.5">
        {settle > 0 ? (
          <span className="text-coral font-semibold">{settle} to settle</span>
        ) : (
          <span className="text-sea">all settled</span>
        )}
        {notes > 0 && (
          <span className="text-faint text-[13px]">
            {notes === 1 ? "1 note" : `${notes} notes`}
          </span>
        )}
      </span>
    </RouteLink>
  );
}

/** What the desk still has free, by the show's own values. */
function Free({ outputs }: { outputs: number }) {
  const channels = useShow((state) => (state.desk?.channels ?? 0) - state.channels.length);
  const mixes = useShow((state) => (state.desk?.mixes ?? 0) - state.mixes.length);
  const groups = useShow((state) => (state.desk?.groups ?? 0) - state.groups.length);
  const matrices = useShow((state) => (state.desk?.matrices ?? 0) - state.matrices.length);
  const row = (word: string, count: number) => (
    <div className="flex justify-between px-2 text-[13px]">
      <dt className="text-faint">{word}</dt>
      <dd className={count === 0 ? "text-coral" : "text-soft"}>{count}</dd>
    </div>
  );
  return (
    <section aria-label="Free on this desk">
      <Group>Free on this desk</Group>
      <dl>
        {row("Channels", channels)}
        {row("Mixes", mixes)}
        {row("Groups", groups)}
        {row("Matrices", matrices)}
        {row("Outputs", outputs)}
      </dl>
    </section>
  );
}
