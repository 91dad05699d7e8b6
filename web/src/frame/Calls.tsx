import { Link as RouteLink } from "wouter";
import { numberOf } from "../data/address";
import { stripName, useLink, useShow } from "../data/use";
import { whenText } from "../data/words";
import { Button } from "../ui/Button";

const SHOWN = 3;

/** Performers who call stand above every view until one press says that it was seen. */
export function Calls() {
  const link = useLink();
  const calls = useShow((state) => state.calls);
  const names = useShow((state) =>
    state.calls.map((call) => stripName(state, call.mix)).join("\n"),
  ).split("\n");
  if (calls.length === 0) return null;
  const more = calls.length - SHOWN;
  return (
    <ul aria-label="Performers who call" className="shrink-0 flex flex-col gap-1.5 pt-2">
      {calls.slice(0, SHOWN).map((call, index) => (
        <li
          key={call.id}
          className="flex items-center gap-x-3 gap-y-1.5 flex-wrap rounded-xl border-2 border-sun bg-floor pl-4 pr-2 py-1.5"
        >
          <span role="alert" className="flex-1 min-w-48 text-[15.5px] break-words">
            <strong dir="auto">{call.who}</strong> calls: <strong dir="auto">“{call.text}”</strong>{" "}
            <span className="text-soft">
              {names[index]}, {whenText(call.at)}
            </span>
          </span>
          <RouteLink
            to={`/ears/${numberOf(call.mix)}`}
            className="h-9 coarse:h-11 inline-flex items-center text-sun-text underline"
          >
            Their mix
          </RouteLink>
          <Button tone="main" className="coarse:h-11" onClick={() => link.seenCall(call.id)}>
            I have seen it
          </Button>
        </li>
      ))}
      {more > 0 && <li className="text-soft">and {more} more call</li>}
    </ul>
  );
}
