import { useEffect, useRef } from "react";
import { Link as RouteLink } from "wouter";
import { notify } from "../data/show";
import { useShow } from "../data/use";
import { usePhone } from "../ui/media";

/** What is promised, on top: kept or broken; the moment one breaks, everybody is told by what. */
export function PromisePill() {
  const phone = usePhone();
  const judged = useShow((state) => state.judged);
  const held = useRef<ReadonlySet<string> | null>(null);
  useEffect(() => {
    for (const one of judged)
      if (one.breaking > 0 && held.current?.has(one.promise))
        notify(`Promise broken. ${one.says}: ${one.breaches[0]?.says ?? ""}`);
    held.current = new Set(
      judged.filter((one) => one.breaking === 0 && !one.vain).map((one) => one.promise),
    );
  }, [judged]);
  const broken = judged.filter((one) => one.breaking > 0).length;
  if (judged.length === 0 || (phone && broken === 0)) return null;
  const words = phone ? String(broken) : broken > 0 ? `${broken} broken` : "kept";
  return (
    <RouteLink
      to="/promises"
      aria-label={phone ? `Promises: ${broken} broken` : undefined}
      data-promises={broken > 0 ? "broken" : "kept"}
      className={`inline-flex items-center gap-2 h-8 coarse:h-11 px-3 phone:px-2.5 shrink-0 rounded-full border bg-card whitespace-nowrap hover:border-edge ${broken > 0 ? "border-coral" : "border-line"}`}
    >
      <span
        aria-hidden
        className={`w-2 h-2 ${broken > 0 ? "bg-coral rotate-45" : "bg-sea rounded-full"}`}
      />
      <span>
        <span className="text-soft narrow:sr-only">Promises </span>
        <span className={broken > 0 ? "text-coral font-semibold" : ""}>{words}</span>
      </span>
    </RouteLink>
  );
}
