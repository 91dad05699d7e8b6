import type { ComponentProps, KeyboardEvent } from "react";
import { Link as RouteLink, useLocation } from "wouter";
import { Glyph } from "./Glyph";
import { PersonMenu } from "./PersonMenu";
import {
  type Counts,
  leadsTo,
  PLACES,
  type Place,
  placeOf,
  type Tab,
  tabsOf,
  useCounts,
  viewOf,
} from "./places";

/** On the left: the six places of the work; beside each, under the pointer or the keys, its tabs. */
export function Rail(opens: ComponentProps<typeof PersonMenu>) {
  const [path] = useLocation();
  const here = placeOf(viewOf(path));
  const counts = useCounts();
  return (
    <div className="screen-only w-[72px] narrow:w-16 border-r border-line bg-floor flex flex-col min-h-0 z-30">
      <nav
        aria-label="The work"
        onKeyDown={walk}
        className="flex-1 min-h-0 flex flex-col gap-1 px-1.5 py-2.5 short:py-1 short:overflow-y-auto short:overflow-x-clip"
      >
        {PLACES.map((place) => (
          <PlaceKey
            key={place.key}
            place={place}
            counts={counts}
            here={place === here}
            stop={place === (here ?? PLACES[0])}
          />
        ))}
      </nav>
      <PersonMenu {...opens} />
    </div>
  );
}

interface KeyProps {
  place: Place;
  counts: Counts;
  here: boolean;
  stop: boolean;
}

function PlaceKey({ place, counts, here, stop }: KeyProps) {
  const tabs = tabsOf(place, counts);
  const wrong = tabs.find((tab) => tab.view === "wrong");
  return (
    <div className="place relative" data-place={place.key}>
      <RouteLink
        to={leadsTo(place)}
        data-place-link
        aria-current={here ? "true" : undefined}
        tabIndex={stop ? 0 : -1}
        className={`relative flex flex-col items-center justify-center gap-1 h-[60px] short:h-12 rounded-2xl text-[13px] leading-none ${
          here ? "bg-raise font-semibold" : "text-soft hover:text-paper hover:bg-card"
        }`}
      >
        {here && (
          <span className="absolute -left-1.5 inset-y-3 w-1 rounded-r-full bg-sun" aria-hidden />
        )}
        <Glyph of={place.key} />
        {place.word}
        {wrong?.short && (
          <span
            aria-hidden
            className="absolute top-1 right-1.5 min-w-4 px-1 rounded-full bg-blocked text-coral text-[11px] leading-4 text-center"
          >
            {wrong.short}
          </span>
        )}
      </RouteLink>
      <div data-place-tabs className="place-tabs absolute left-full top-0 pl-1.5 z-40">
        <ul className="min-w-60 rounded-2xl border border-edge bg-floor p-1.5 shadow-2xl flex flex-col">
          {tabs.map((tab) => (
            <TabRow key={tab.view} tab={tab} />
          ))}
        </ul>
      </div>
    </div>
  );
}

function TabRow({ tab }: { tab: Tab }) {
  const [path] = useLocation();
  const here = viewOf(path) === tab.view;
  return (
    <li>
      <RouteLink
        to={tab.to}
        tabIndex={-1}
        aria-current={here ? "page" : undefined}
        className={`flex items-baseline justify-between gap-6 min-h-9 px-3 py-1.5 rounded-xl whitespace-nowrap hover:bg-raise ${here ? "font-semibold" : ""}`}
        // a click leaves the hand on the link, which would keep the list open
        onClick={(event) => event.currentTarget.blur()}
      >
        <span>{tab.word}</span>
        <span className={`text-[13px] ${tab.view === "wrong" ? "text-coral" : "text-faint"}`}>
          {tab.count}
        </span>
      </RouteLink>
    </li>
  );
}

/** Up and down walk the places, or the tabs of one; right goes to them, left and Escape back. */
function walk(event: KeyboardEvent<HTMLElement>): void {
  const nav = event.currentTarget;
  const at = document.activeElement as HTMLElement;
  const place = at.closest<HTMLElement>("[data-place]");
  if (!place) return;
  const inTabs = at.closest("[data-place-tabs]") !== null;
  const all = [
    ...(inTabs ? place : nav).querySelectorAll<HTMLElement>(
      inTabs ? "[data-place-tabs] a" : "[data-place-link]",
    ),
  ];
  const step = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
  const to = step
    ? all[all.indexOf(at) + step]
    : event.key === "ArrowRight" && !inTabs
      ? place.querySelector<HTMLElement>("[data-place-tabs] a")
      : (event.key === "ArrowLeft" || event.key === "Escape") && inTabs
        ? place.querySelector<HTMLElement>("[data-place-link]")
        : null;
  if (!to && !step) return;
  event.preventDefault();
  to?.focus();
}
