import { useEffect } from "react";
import type { Silent } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { Waiting } from "../../ui/Waiting";

type Source = Silent["sources"][number];

/** Who is silent in the house, and why, as the core says; what one thing silences is told once. */
export function SilentSources() {
  const link = useLink();
  const silent = useShow((state) => state.silent);
  useEffect(() => {
    link.watch({ silent: true });
    return () => link.watch({ silent: false });
  }, [link]);
  const byReason = new Map<string, Source[]>();
  for (const one of silent?.sources ?? [])
    byReason.set(one.together, [...(byReason.get(one.together) ?? []), one]);
  const more = (silent?.count ?? 0) - (silent?.sources.length ?? 0);
  return (
    <section aria-label="Silent" className="min-h-0">
      <h2 className="text-soft pb-1">
        Silent in the house <span className="text-faint">{silent?.count}</span>
      </h2>
      {!silent ? (
        <Waiting />
      ) : silent.count === 0 ? (
        <p className="text-faint">Everybody who goes to the house is heard there.</p>
      ) : (
        <ul className="flex flex-col gap-1">
          {[...byReason].map(([together, sources]) => (
            <li
              key={together}
              data-subject={sources.length === 1 ? sources[0]!.source : undefined}
              className="border-l-[3px] border-coral/70 pl-2"
            >
              <span className="text-coral break-words">
                {sources.length > 1 ? together : sources[0]!.says}
              </span>
              {sources.length > 1 && (
                <span dir="auto" className="block break-words">
                  <strong>{sources.length}</strong> {sources.map((one) => one.name).join(", ")}
                </span>
              )}
            </li>
          ))}
          {more > 0 && <li className="text-faint">and {more} more</li>}
        </ul>
      )}
    </section>
  );
}
