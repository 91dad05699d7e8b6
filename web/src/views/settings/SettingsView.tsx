import type { ReactNode } from "react";
import { choose, useHabits } from "../../data/settings";
import { useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { PLACES, VIEW_WORD } from "../../frame/places";
import { ViewHead } from "../../frame/ViewHead";
import { Choice } from "../../ui/Choice";
import { Toggle } from "../../ui/Toggle";

const STARTS = PLACES.flatMap((place) =>
  place.views.map((view) => [view, `${place.word}: ${VIEW_WORD[view]}`] as const),
);
const THEMES = [
  ["dusk", "dusk, for the dark"],
  ["daylight", "daylight, for the sun"],
  ["system", "as the system has it"],
] as const;
const SIZES = [90, 100, 115, 130, 150].map((one) => [String(one), `${one} %`] as const);
const CLOCKS = [
  ["24", "24 hours, 18:30"],
  ["12", "12 hours, 6:30 pm"],
] as const;
const DATES = [
  ["iso", "2026-11-30"],
  ["day_first", "30.11.2026"],
  ["month_first", "11/30/2026"],
] as const;
const SIDES = [
  ["right", "at the right"],
  ["left", "at the left"],
] as const;

/** How one likes it oneself; nothing of it changes the show, or what others see. */
export function SettingsView() {
  const habits = useHabits((now) => now);
  const name = useShow((state) => state.me?.name ?? "");
  return (
    <>
      <ViewHead title={`Settings of ${name}`} />
      <div className="scrolls flex-1 min-h-0 max-w-[760px] flex flex-col" data-settings>
        <ChoiceRow
          word="Starts with"
          says="The view that opens with a show."
          value={habits.start}
          options={STARTS}
          onChange={(start) => choose({ start })}
        />
        <ChoiceRow
          word="Theme"
          says="Dusk is for a dark room, daylight for a field at noon."
          value={habits.theme}
          options={THEMES}
          onChange={(theme) => choose({ theme: theme as typeof habits.theme })}
        />
        <ChoiceRow
          word="Text size"
          says="Everything grows with it, as with the browser's own enlargement."
          value={String(habits.text)}
          options={SIZES}
          onChange={(text) => choose({ text: Number(text) as typeof habits.text })}
        />
        <ChoiceRow
          word="Clock"
          says={`An edit just now would be told as made at ${whenText(new Date().toISOString())}.`}
          value={habits.clock}
          options={CLOCKS}
          onChange={(clock) => choose({ clock: clock as typeof habits.clock })}
        />
        <ChoiceRow
          word="Dates"
          says="Of what was before today."
          value={habits.date}
          options={DATES}
          onChange={(date) => choose({ date: date as typeof habits.date })}
        />
        <Row
          word="Single-letter keys"
          says="Keys such as M for mute, G for go or / for Find. Off, only keys with Ctrl, arrows, Space and Escape do something."
        >
          <Toggle
            label={`${habits.letters ? "on" : "off"}, single-letter keys`}
            pressed={habits.letters}
            onChange={(letters) => choose({ letters })}
          >
            {habits.letters ? "on" : "off"}
          </Toggle>
        </Row>
        <ChoiceRow
          word="Why stands"
          says="Beside the work, on this side."
          value={habits.why_side}
          options={SIDES}
          onChange={(side) => choose({ why_side: side as typeof habits.why_side })}
        />
      </div>
    </>
  );
}

interface ChoiceRowProps {
  word: string;
  says: string;
  value: string;
  options: readonly (readonly [string, string])[];
  onChange: (value: string) => void;
}

function ChoiceRow({ word, says, ...choice }: ChoiceRowProps) {
  return (
    <Row word={word} says={says}>
      <Choice boxed label={word} {...choice} />
    </Row>
  );
}

function Row({ word, says, children }: { word: string; says: string; children: ReactNode }) {
  return (
    <div className="flex items-center gap-x-4 gap-y-1 flex-wrap py-3 border-b border-line">
      <span className="flex-1 min-w-56">
        <span className="block font-semibold">{word}</span>
        <span className="block text-[13px] text-faint">{says}</span>
      </span>
      {children}
    </div>
  );
}
