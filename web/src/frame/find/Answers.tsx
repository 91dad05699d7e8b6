import { useEffect, useRef } from "react";
import type { Group, Hit } from "./useFound";

const SIGN: Record<string, string> = { change: "⇅", go: "→", hears: "◉", do: "▸", guide: "¶" };

interface Props {
  id: string;
  groups: readonly Group[];
  hit: Hit | undefined;
  onTake: (hit: Hit) => void;
  onLook: (hit: Hit) => void;
}

/** The answers in their groups; the one in hand is marked, and pressed by Enter. */
export function Answers({ id, groups, hit, onTake, onLook }: Props) {
  const list = useRef<HTMLDivElement>(null);
  const hits = groups.flatMap((group) => group.hits);
  useEffect(() => {
    list.current?.querySelector("[aria-selected=true]")?.scrollIntoView?.({ block: "nearest" });
  }, [hit]);
  return (
    <div
      ref={list}
      id={`${id}-list`}
      role="listbox"
      aria-label="Found"
      className="scrolls min-h-0 pr-1"
    >
      {groups.map((group) => (
        <div key={group.key} role="group" aria-label={group.word} className="pb-2">
          <p aria-hidden className="text-faint text-[13px] px-2 pb-0.5">
            {group.word}{" "}
            {group.many > group.hits.length ? `${group.hits.length} of ${group.many}` : group.many}
          </p>
          {group.hits.map((one) => {
            const index = hits.indexOf(one);
            const chosen = one === hit;
            return (
              <div
                key={`${one.title} ${one.about}`}
                id={`${id}-${index}`}
                role="option"
                aria-selected={chosen}
                onMouseEnter={() => onLook(one)}
                onClick={() => onTake(one)}
                className={`flex items-center gap-3 min-h-10 coarse:min-h-11 px-2 py-1 rounded-xl border cursor-pointer ${
                  chosen ? "border-sun bg-raise" : "border-transparent"
                }`}
              >
                <span aria-hidden className="w-5 text-center text-faint">
                  {SIGN[group.key]}
                </span>
                <span className="flex-1 min-w-0 font-semibold break-words" dir="auto">
                  {one.title}
                </span>
                <span
                  className="text-soft text-[13px] text-right shrink-0 max-w-[45%] truncate"
                  dir="auto"
                >
                  {one.about}
                </span>
                {chosen && (
                  <kbd className="text-[12px] px-1.5 rounded border border-edge coarse:hidden">
                    Enter
                  </kbd>
                )}
              </div>
            );
          })}
        </div>
      ))}
    </div>
  );
}
