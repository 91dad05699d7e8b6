import { memo, type PointerEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link as RouteLink } from "wouter";
import { isOf, isSource, kindOf, numberOf } from "../../data/address";
import { byHand, useSetByHand } from "../../data/hand";
import { Gesture } from "../../data/link";
import { colourOf, placesOf, store, valueIn } from "../../data/show";
import type { Ask, CellState, Table } from "../../data/types";
import { select, stripName, useLevel, useLink, useOn, useShow, useText } from "../../data/use";
import { levelText, panText, TAP_SHORT, TAP_WORD } from "../../data/words";
import { Choice } from "../../ui/Choice";
import { Fader } from "../../ui/Fader";
import { useListHeight } from "../../ui/media";
import { ColourBar, Empty } from "../../ui/Panel";
import { RowList } from "../../ui/RowList";
import { Toggle } from "../../ui/Toggle";
import { Toolbar } from "../../ui/Toolbar";
import { TrueMark } from "../../ui/TrueLevel";
import { TypedField } from "../../ui/TypedField";
import { type Mark, travelOf } from "../../ui/travel";
import { isAssigned, levelAddress, panAddress, switchAddress } from "./addresses";

const TAPS = Object.entries(TAP_SHORT);

/** What goes into a listener: a fader for each source. Painting draws one level across many. */
export function Sends({ bus }: { bus: string }) {
  const link = useLink();
  // those that were sent when it was pressed stay: no row goes away beneath a hand
  const [kept, setKept] = useState<readonly string[] | null>(null);
  const feeders = useFeeders(bus);
  const sent = useSent(bus, feeders);
  const strips = useMemo(
    () =>
      kept ? feeders.filter((strip) => kept.includes(strip) || sent.includes(strip)) : feeders,
    [kept, feeders, sent],
  );
  const [painting, setPainting] = useState(false);
  const gesture = useRef<Gesture | null>(null);
  const painted = useRef(new Map<string, number>());
  const lastTravel = useRef(0);
  const paints = useRef(false);
  const first = useRef<string | null>(null);

  useEffect(() => {
    const first = store.getState().selected?.source ?? null;
    select(first, bus);
  }, [bus]);

  const begin = () => {
    gesture.current ??= new Gesture(link);
    return gesture.current;
  };
  const move = (address: string, travel: number) => {
    lastTravel.current = travel;
    painted.current.set(address, travel);
    begin().move(movesOf(painted.current, paints.current));
  };
  const release = () => {
    gesture.current?.end();
    gesture.current = null;
    painted.current = new Map();
  };
  // The pointer is held by the fader where it went down; where it is now, the page knows.
  const paint = (event: PointerEvent) => {
    if (!(event.buttons & 1) || !(painting || event.shiftKey)) return;
    const under = document.elementFromPoint(event.clientX, event.clientY);
    const address = addressAt(under);
    if (address === first.current && painted.current.size === 0) return;
    if (address && !painted.current.has(address)) move(address, lastTravel.current);
    else if (painted.current.size > 1) {
      for (const known of painted.current.keys()) painted.current.set(known, lastTravel.current);
      begin().move(movesOf(painted.current, true));
    }
  };

  const hands = useRef({ move, release });
  hands.current = { move, release };
  const row = useCallback(
    (strip: string) => (
      <SendRow
        strip={strip}
        bus={bus}
        onMove={(address, travel) => hands.current.move(address, travel)}
        onRelease={() => hands.current.release()}
      />
    ),
    [bus],
  );
  const height = useListHeight();

  if (feeders.length === 0) {
    return (
      <Empty title="Nothing to send yet">
        <p>Sends come from channels with a source. Import the input list and patch it first.</p>
        <RouteLink to="/lines" className="text-sun-text underline">
          Go to Lines
        </RouteLink>
      </Empty>
    );
  }
  return (
    <>
      <div className="flex items-center gap-x-3 flex-wrap text-[12px] text-faint pb-1 shrink-0">
        <span>
          {isAssigned(bus)
            ? `Strips assigned to ${BUS_WORD[kindOf(bus)]}, by their own faders`
            : `Sends into this ${kindOf(bus)}`}
        </span>
        <span className="flex-1" />
        <span>Type a level, up 2 or off. Arrow keys nudge.</span>
        <Toolbar
          label="How rows are shown"
          tools={{
            sent: (
              <Toggle
                label="Only those sent"
                pressed={kept !== null}
                onChange={(on) => setKept(on ? sent : null)}
              >
                Only those sent ({sent.length})
              </Toggle>
            ),
            paint: (
              <Toggle
                label="Paint across rows"
                tone="sun"
                pressed={painting}
                onChange={setPainting}
              >
                Paint
              </Toggle>
            ),
          }}
        />
      </div>
      <div
        className="contents"
        onPointerDownCapture={(event) => {
          paints.current = painting || event.shiftKey;
          // what is drawn across the rows is where the first one stands
          first.current = addressAt(event.target) ?? null;
          const state = store.getState();
          const level = first.current && valueIn(state, first.current);
          if (first.current)
            lastTravel.current = travelOf(
              level as number | null,
              state.desk!.fader_marks as Mark[],
            );
        }}
      >
        <RowList
          label={`What goes into ${bus}`}
          keys={strips}
          height={height}
          onPointerMove={paint}
          row={row}
        />
      </div>
    </>
  );
}

const BUS_WORD: Record<string, string> = { house: "the house", mono: "mono", group: "this group" };

/** The strips in use that may feed a bus, as the catalogue has it; matrices blend what is done already. */
function useFeeders(bus: string): readonly string[] {
  const text = useShow((state) => {
    const main = ["house", "mono"];
    const used = [
      ...(isOf(bus, "matrix") ? main : []),
      ...state.channels.map((n) => `channel/${n}`),
      ...state.returns.map((n) => `return/${n}`),
      ...state.groups.map((n) => `group/${n}`),
      ...state.mixes.map((n) => `mix/${n}`),
    ];
    return used
      .filter((strip) => strip !== bus && state.catalogue!.has(switchAddress(strip, bus)))
      .join(" ");
  });
  return useMemo(() => text.split(" ").filter(Boolean), [text]);
}

/** Those of some strips that go into a bus: their feed is on, and not at off. */
function useSent(bus: string, feeders: readonly string[]): readonly string[] {
  const text = useShow((state) =>
    feeders
      .filter(
        (strip) =>
          valueIn(state, switchAddress(strip, bus)) === true &&
          (isAssigned(bus) || valueIn(state, levelAddress(strip, bus)) !== null),
      )
      .join(" "),
  );
  return useMemo(() => text.split(" ").filter(Boolean), [text]);
}

function cellState(table: Table | null, source: string, listener: string): CellState | undefined {
  if (!table) return undefined;
  const row = placesOf(table.sources).get(source) ?? -1;
  return table.state[row]?.[placesOf(table.listeners).get(listener) ?? -1];
}

const addressAt = (element: unknown): string | undefined =>
  element instanceof Element
    ? element.closest<HTMLElement>("[role=slider][data-address]")?.dataset.address
    : undefined;

/** One fader is moved by hand, and gangs follow; what is painted is meant as it is. */
function movesOf(painted: ReadonlyMap<string, number>, painting: boolean): Ask {
  const moves = [...painted].map(([address, travel]) => ({ address, travel }));
  return painting || moves.length > 1 ? { action: "moves", moves } : byHand(moves, { stays: true });
}

/** What stands before a strip's number; a channel's number stands alone. */
const SHORT: Record<string, string> = { channel: "", return: "R", group: "G", mix: "M" };

interface RowProps {
  strip: string;
  bus: string;
  onMove: (address: string, travel: number) => void;
  onRelease: () => void;
}

const SendRow = memo(function SendRow({ strip, bus, onMove, onRelease }: RowProps) {
  const assigned = isAssigned(bus);
  const address = levelAddress(strip, bus);
  const onAddress = switchAddress(strip, bus);
  const name = useShow((state) => stripName(state, strip));
  const busName = useShow((state) => stripName(state, bus));
  const colour = useShow((state) => colourOf(state, strip));
  const level = useLevel(address);
  const on = useOn(onAddress);
  const muted = useOn(`${strip}/mute`);
  const stereo = useShow(
    (state) => bus === "house" || (bus !== "mono" && valueIn(state, `${bus}/format`) === "stereo"),
  );
  const marks = useShow((state) => state.desk!.fader_marks as Mark[]);
  const set = useSetByHand();
  // whether it is blocked is the core's to say: a mute counts only where the tap lies behind it
  const state = useShow((show) => cellState(show.table, strip, bus));
  const blocked =
    !on ||
    state === "muted" ||
    state === "no_source" ||
    state === "no_output" ||
    state === "cancelled";
  const ofSource = isSource(strip);
  return (
    <div
      className={`row-send h-[calc(100%-2px)] rounded-md bg-floor pr-2 ${on ? "" : "[&_[role=slider]]:opacity-45"}`}
      onFocus={() => select(ofSource ? strip : null, bus)}
      onPointerDown={() => select(ofSource ? strip : null, bus)}
      data-row={strip}
    >
      <ColourBar colour={colour} />
      <span className="text-right text-faint text-[13px]" style={{ gridArea: "number" }}>
        {SHORT[kindOf(strip)]}
        {numberOf(strip) || ""}
      </span>
      <span className="flex items-baseline gap-1.5 min-w-0" style={{ gridArea: "name" }}>
        <span dir="auto" className="truncate" title={name}>
          {name}
        </span>
        {assigned && <TrueMark strip={strip} />}
      </span>
      <Toggle
        area="on"
        label={`${assigned ? `${name} feeds ${busName}` : `Send of ${name}`}, ${on ? "on" : "off"}`}
        pressed={on}
        onChange={(value) => set(onAddress, value ? "on" : "off")}
      >
        {on ? "on" : "off"}
      </Toggle>
      <Fader
        area="fader"
        label={`${name} into ${busName}`}
        address={address}
        levelDb={level}
        muted={on && blocked}
        marks={marks}
        colour={colour}
        onMove={(travel) => onMove(address, travel)}
        onRelease={onRelease}
        onStep={(text) => set(address, text)}
      />
      <TypedField
        area="level"
        label={`Level of ${name} in dB`}
        value={levelText(level)}
        align="right"
        className={level === null ? "text-faint" : ""}
        onCommit={(text) => set(address, text)}
        data={{ "data-column": "level" }}
      />
      {stereo ? <PanField address={panAddress(strip, bus)} name={name} /> : null}
      {assigned ? (
        <Toggle
          area="tap"
          label={`Mute ${name}`}
          tone="coral"
          pressed={muted}
          onChange={(value) => set(`${strip}/mute`, value ? "on" : "off")}
        >
          mute
        </Toggle>
      ) : (
        <TapField address={`${strip}/send/${bus}/tap`} name={name} />
      )}
    </div>
  );
});

function PanField({ address, name }: { address: string; name: string }) {
  const set = useSetByHand();
  const pan = useShow((state) => valueIn(state, address) as number);
  return (
    <TypedField
      area="pan"
      label={`Pan of ${name}`}
      value={panText(pan)}
      align="right"
      className="text-[13px]"
      onCommit={(typed) => set(address, typed)}
      data={{ "data-column": "pan" }}
    />
  );
}

function TapField({ address, name }: { address: string; name: string }) {
  const link = useLink();
  return (
    <Choice
      area="tap"
      label={`Tap of ${name}`}
      value={useText(address)}
      options={TAPS}
      title={TAP_WORD[useText(address)]}
      className="text-[12px]"
      onChange={(typed) => void link.type(address, typed)}
    />
  );
}
