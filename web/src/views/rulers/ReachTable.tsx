import { useLink, useShow } from "../../data/use";
import { Button } from "../../ui/Button";
import { Waiting } from "../../ui/Waiting";
import type { Kind } from "./kinds";

/** What each listener loses by its mute or key, what follows its level there, and who is still heard. */
export function ReachTable({ ruler, kind }: { ruler: string; kind: Kind }) {
  const link = useLink();
  const reach = useShow((state) => (state.reach?.ruler === ruler ? state.reach : null));
  if (!reach) return <Waiting />;
  if (reach.listeners.length === 0)
    return <p className="text-soft">Nobody hears any of its members just now.</p>;
  const { behind, along } = reach;
  const passing = reach.listeners.filter((one) => one.still.length > 0);
  return (
    <section aria-label="Who loses what" className="flex flex-col gap-2 shrink-0">
      <h2 className="font-title font-semibold text-[17px]">
        Who loses what{" "}
        <span className="text-faint font-normal text-[13px]">
          {kind === "dca" ? "by its mute, and who follows its level" : "by its key"}
        </span>
      </h2>
      {passing.length > 0 && (
        <div className="rounded-xl border border-coral/50 bg-card px-3 py-2 flex items-center gap-3 flex-wrap">
          <p className="flex-1 min-w-56">
            <strong className="text-coral">
              {passing.length} listener{passing.length === 1 ? "" : "s"} still hear members
            </strong>{" "}
            when it mutes{behind ? ": their sends are tapped before the mute." : "."}
          </p>
          {behind && (
            <Button
              tone="main"
              onClick={() =>
                void link.do(
                  { action: "moves", moves: behind.moves, says: behind.says },
                  { quiet: false },
                )
              }
            >
              {behind.says}
            </Button>
          )}
        </div>
      )}
      {reach.tails.length > 0 && (
        <div className="rounded-xl border border-line bg-card px-3 py-2 flex items-center gap-3 flex-wrap">
          <p className="flex-1 min-w-56">
            <strong className="text-sun-text">Rings on when it mutes:</strong>{" "}
            {reach.tails
              .map((one) =>
                one.others.length > 0 ? `${one.name} (${few(one.others)} too)` : one.name,
              )
              .join(", ")}
            .
          </p>
          {along && (
            <Button
              onClick={() =>
                void link.do(
                  { action: "moves", moves: along.moves, says: along.says },
                  { quiet: false },
                )
              }
            >
              {along.says}
            </Button>
          )}
        </div>
      )}
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-x-4">
        {reach.listeners.map((one) => (
          <li
            key={one.listener}
            data-subject={one.listener}
            className="border-t border-line py-1 flex flex-wrap gap-x-2.5"
          >
            <span dir="auto" className="flex-1 min-w-24 break-words">
              {one.name}
            </span>
            {one.closes > 0 && <span className="text-coral">{one.closes} silent</span>}
            {one.follows > 0 && <span className="text-sea">{one.follows} follow</span>}
            {one.still.length > 0 && (
              <span dir="auto" className="basis-full text-[12.5px] text-soft break-words">
                still heard: <bdi>{few(one.still)}</bdi>
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function few(names: readonly string[]): string {
  return names.length > 5
    ? `${names.slice(0, 4).join(", ")} and ${names.length - 4} more`
    : names.join(", ");
}
