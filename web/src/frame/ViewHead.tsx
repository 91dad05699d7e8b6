import type { ReactNode } from "react";
import { Link as RouteLink, useLocation } from "wouter";
import { Explained } from "../ui/Explained";
import { walkAcross } from "../ui/walk";
import { ABOUT } from "./about";
import { Glyph } from "./Glyph";
import { OwnWords } from "./OwnWords";
import { placeOf, tabsOf, useCounts, viewOf } from "./places";

interface Props {
  title: string;
  children?: ReactNode;
}

/**
 * Head of a view: the tabs of its place, of which its own is the heading; what the view is; what can
 * be done there; the way to paper.
 */
export function ViewHead({ title, children }: Props) {
  const [path] = useLocation();
  const view = viewOf(path);
  const place = placeOf(view);
  const tabs = tabsOf(place, useCounts());
  // the tabs are one stop for the Tab key, walked by arrows
  const stop = tabs.find((tab) => tab.view !== view);
  const sheet = ABOUT[view]?.sheet;
  return (
    <div className="flex items-center gap-x-3 gap-y-1.5 min-h-14 pt-1.5 pb-2 shrink-0 flex-wrap">
      {place ? (
        <nav
          aria-label={place.word}
          className="min-w-0 max-w-full phone:order-first phone:flex-1 phone:min-w-[55%]"
          onKeyDown={walkAcross}
        >
          <ul className="flex items-baseline gap-x-5 narrow:gap-x-4 phone:gap-x-1 scrolls-x">
            {tabs.map((tab) => (
              <li key={tab.view} className="shrink-0">
                {tab.view === view ? (
                  <h1
                    ref={intoSight}
                    aria-current="page"
                    title={tab.count || undefined}
                    className="font-title text-[22px] phone:text-[16px] font-bold whitespace-nowrap leading-10 border-b-[3px] border-sun"
                  >
                    {title}
                    {tab.short && (
                      <span className="pl-1.5 text-[14px] font-semibold text-faint phone:hidden">
                        {tab.short}
                      </span>
                    )}
                  </h1>
                ) : (
                  <RouteLink
                    to={tab.to}
                    tabIndex={tab === stop ? 0 : -1}
                    title={tab.count || undefined}
                    className="block coarse:min-w-11 text-center whitespace-nowrap text-[15.5px] phone:text-[14px] leading-10 border-b-[3px] border-transparent text-soft hover:text-paper hover:border-line"
                  >
                    {tab.word}
                    {tab.view === "wrong" && tab.short && (
                      <span className="pl-1 text-coral font-semibold">{tab.short}</span>
                    )}
                  </RouteLink>
                )}
              </li>
            ))}
          </ul>
        </nav>
      ) : (
        <h1 className="font-title text-[22px] font-bold whitespace-nowrap">{title}</h1>
      )}
      {ABOUT[view] && <WhatIsThis view={view} says={ABOUT[view].says} />}
      {children}
      {sheet && (
        <RouteLink
          to={`/paper?sheet=${sheet}`}
          title="Print or export this"
          className="ml-auto phone:ml-0 phone:order-first inline-flex items-center justify-center gap-1.5 h-9 px-1 coarse:min-w-11 text-[13.5px] text-soft hover:text-paper whitespace-nowrap"
        >
          <Glyph of="print" className="w-5" />
          <span className="narrow:sr-only">Print or export</span>
        </RouteLink>
      )}
    </div>
  );
}

/** Where the tabs are wider than the screen, the one that one is at is in sight. */
const intoSight = (tab: HTMLElement | null) =>
  tab?.scrollIntoView?.({ block: "nearest", inline: "nearest" });

function WhatIsThis({ view, says }: { view: string; says: string }) {
  return (
    <Explained
      title="What is this"
      guide={`/guide?view=${view}`}
      className="phone:order-first inline-flex items-center justify-center gap-2 h-9 min-w-6 text-[13.5px] text-soft hover:text-paper cursor-pointer whitespace-nowrap"
      trigger={
        <>
          <span
            aria-hidden
            className="w-5 h-5 rounded-full border border-edge grid place-items-center text-[12px] font-semibold"
          >
            ?
          </span>
          <span className="max-[1350px]:sr-only">What is this</span>
        </>
      }
    >
      <p>{says}</p>
      <OwnWords of={ABOUT[view]?.words} />
    </Explained>
  );
}
