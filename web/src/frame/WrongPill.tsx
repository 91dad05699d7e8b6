import { useEffect, useRef } from "react";
import { Link as RouteLink } from "wouter";
import { notify } from "../data/show";
import { useShow } from "../data/use";
import { ONE_MOMENT } from "../ui/Waiting";
import { useWrong } from "./places";

/** One number of what is wrong, broken promises among it; it leads to each with what mends it. */
export function WrongPill() {
  const wrong = useWrong();
  useBroken();
  const none = wrong === 0;
  return (
    <RouteLink
      to="/wrong"
      title="What is wrong, each with what mends it"
      data-wrong={wrong ?? "looking"}
      className="flex items-center justify-center gap-2 coarse:min-w-11 px-2 -mx-2 h-10 rounded-xl whitespace-nowrap hover:bg-card"
    >
      <span
        aria-hidden
        className={`w-2.5 h-2.5 ${wrong === null ? "border-2 border-faint rounded-full" : none ? "bg-sea rounded-full" : "bg-coral rotate-45"}`}
      />
      {wrong === null ? (
        <span className="text-faint phone:sr-only">{ONE_MOMENT}</span>
      ) : none ? (
        <span className="text-sea phone:sr-only">nothing wrong</span>
      ) : (
        <>
          <strong className="font-title text-[20px] leading-none text-coral">{wrong}</strong>
          <span className="phone:sr-only">wrong</span>
        </>
      )}
    </RouteLink>
  );
}

/** The moment a promise breaks, everybody is told by what. */
function useBroken(): void {
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
}
