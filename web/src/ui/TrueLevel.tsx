import { Link as RouteLink } from "wouter";
import { isOf, thingOf } from "../data/address";
import { useMadeOf, useMutedBy, useTrueLevel } from "../data/ruled";
import { stripName, useShow } from "../data/use";
import { cellText } from "../data/words";
import { walkAcross } from "./walk";

/** Beside a fader: what the strip truly comes to and of what that is made, and who mutes it too. */
export function TrueLevel({ strip, className = "" }: { strip: string; className?: string }) {
  const made = useMadeOf(strip);
  const muted = useMutedBy(strip);
  if (!made && !muted) return null;
  return (
    <span className={`text-[12.5px] leading-tight min-w-0 ${className}`} data-true-level={strip}>
      {made && <span className="text-sea">{made}</span>}
      {made && muted && " · "}
      {muted && <span className="text-coral">{muted}</span>}
    </span>
  );
}

/** The same in a row, where there is little room: what it comes to, and of what in its title. */
export function TrueMark({ strip }: { strip: string }) {
  const made = useMadeOf(strip);
  const muted = useMutedBy(strip);
  const level = useTrueLevel(strip);
  if (!made && !muted) return null;
  return (
    <span
      title={muted || made}
      className={`text-[12.5px] whitespace-nowrap ${muted ? "text-coral" : "text-sea"}`}
    >
      {muted ? "silenced" : `= ${cellText(level)}`}
    </span>
  );
}

const VIEW: Record<string, string> = { dca: "dcas", mute_group: "mutes", gang: "gangs" };

/** What rules a strip, each a link. */
export function RuledBy({ strip }: { strip: string }) {
  const text = useShow((state) =>
    [...state.members]
      .filter(([, members]) => members.has(strip))
      .map(([ruler]) => ruler)
      .join(" "),
  );
  const rulers = text.split(" ").filter(Boolean);
  const kinds = [
    ["DCA", rulers.filter((ruler) => isOf(ruler, "dca"))],
    ["Mute group", rulers.filter((ruler) => isOf(ruler, "mute_group"))],
    ["Gang", rulers.filter((ruler) => isOf(ruler, "gang"))],
  ] as const;
  if (rulers.length === 0) return null;
  return (
    // one stop for the Tab key, walked by left and right
    <p className="text-[12.5px] text-faint basis-full leading-snug" onKeyDown={walkAcross}>
      {kinds.map(
        ([word, some]) =>
          some.length > 0 && (
            <span key={word} className="block">
              {word}{" "}
              {some.map((ruler, index) => (
                <span key={ruler}>
                  {index > 0 && ", "}
                  <RulerLink ruler={ruler} stop={ruler === rulers[0]} />
                </span>
              ))}
            </span>
          ),
      )}
    </p>
  );
}

export function RulerLink({ ruler, stop = true }: { ruler: string; stop?: boolean }) {
  const name = useShow((state) => stripName(state, ruler));
  const { kind, number } = thingOf(ruler);
  return (
    <RouteLink
      to={`/${VIEW[kind]}/${number}`}
      tabIndex={stop ? 0 : -1}
      className="in-text inline-block max-w-full break-words text-sun-text underline underline-offset-2"
    >
      {name}
    </RouteLink>
  );
}
