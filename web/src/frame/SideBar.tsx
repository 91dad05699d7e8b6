import { Link as RouteLink, useLocation } from "wouter";
import { valueOf } from "../data/show";
import { usePatched, useShow } from "../data/use";

/** On the left: the work in its order, with counts, and what the desk still has free. */
export function SideBar() {
  const lines = useShow((state) => state.lines.length);
  const patched = usePatched(
    (state) => state.lines.filter((line) => valueOf(state, `line/${line}/socket`) !== null).length,
  );
  const checked = usePatched(
    (state) => state.lines.filter((line) => valueOf(state, `line/${line}/check`) !== "unchecked").length,
  );
  const mixes = useShow((state) => state.mixes.length + state.groups.length + state.matrices.length);
  const outputs = useOutputs();
  return (
    <nav className="border-r border-line bg-floor px-2 py-3 flex flex-col gap-0.5 min-h-0" aria-label="The work">
      <Group>Prepare</Group>
      <Item to="/lines" count={String(lines)}>
        Lines
      </Item>
      <Item to="/patch" count={`${patched}/${lines}`}>
        Patch
      </Item>
      <Item to="/mixes" count={String(mixes)}>
        Mixes
      </Item>
      <Item to="/outputs" count={`${outputs.taken}/${outputs.all}`}>
        Outputs
      </Item>
      <Item to="/check" count={`${checked}/${lines}`}>
        Line check
      </Item>
      <Item to="/paper">Paper</Item>
      <Group>Hear</Group>
      <Item to="/hears">Who hears what</Item>
      <span className="flex-1" />
      <FindingsItem />
      <Free outputs={outputs.all - outputs.taken} />
    </nav>
  );
}

function Group({ children }: { children: string }) {
  return <h2 className="text-[12px] text-faint px-2.5 pt-3 pb-1">{children}</h2>;
}

function Item({ to, count, children }: { to: string; count?: string; children: string }) {
  const [path] = useLocation();
  const here = path === to || path.startsWith(`${to}/`);
  return (
    <RouteLink
      to={to}
      aria-current={here ? "page" : undefined}
      className={`flex items-center h-9 px-2.5 rounded-xl gap-2 ${
        here ? "bg-raise font-semibold" : "text-soft hover:text-paper hover:bg-card"
      }`}
    >
      {here && <span className="w-1 h-4 rounded-full bg-sun -ml-1" aria-hidden />}
      <span className="flex-1">{children}</span>
      {count !== undefined && <span className="text-faint text-[13px]">{count}</span>}
    </RouteLink>
  );
}

/** How many output sockets there are, and how many carry something. */
function useOutputs(): { taken: number; all: number } {
  const all = useShow((state) => state.desk?.boxes.reduce((sum, box) => sum + box.outputs, 0) ?? 0);
  return { taken: useShow((state) => state.outputs.size), all };
}

/** What is wrong, always in sight. */
function FindingsItem() {
  const settle = useShow((state) => state.findings.filter((one) => one.tone === "settle").length);
  const notes = useShow((state) => state.findings.length) - settle;
  const [path] = useLocation();
  return (
    <RouteLink
      to="/findings"
      aria-current={path === "/findings" ? "page" : undefined}
      className={`rounded-xl px-2.5 py-2 ${path === "/findings" ? "bg-raise" : "hover:bg-card"}`}
    >
      <span className="block text-[12px] text-faint">Findings</span>
      <span className="flex justify-between">
        {settle > 0 ? (
          <span className="text-coral font-semibold">{settle} to settle</span>
        ) : (
          <span className="text-sea">all settled</span>
        )}
        {notes > 0 && <span className="text-faint text-[13px]">{notes === 1 ? "1 note" : `${notes} notes`}</span>}
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
    <div className="flex justify-between px-2.5 text-[13px]">
      <dt className="text-faint">{word}</dt>
      <dd className={count === 0 ? "text-coral" : "text-soft"}>{count}</dd>
    </div>
  );
  return (
    <dl aria-label="Free on this desk">
      <Group>Free on this desk</Group>
      {row("Channels", channels)}
      {row("Mixes", mixes)}
      {row("Groups", groups)}
      {row("Matrices", matrices)}
      {row("Outputs", outputs)}
    </dl>
  );
}
