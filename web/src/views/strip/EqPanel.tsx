import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import { byHand, useSetByHand } from "../../data/hand";
import { Gesture } from "../../data/link";
import type { Curves, Move } from "../../data/types";
import { useLevel, useLink, useOn, useShow, useText } from "../../data/use";
import { hertzText, levelText } from "../../data/words";
import { useCoarse } from "../../ui/media";
import { InRow, useRows } from "../../ui/reach";
import { Waiting } from "../../ui/Waiting";
import {
  across,
  FrequencyGrid,
  HEIGHT,
  HIGH_HZ,
  LOW_HZ,
  lineOf,
  useGridWidth,
  viewBoxOf,
  Within,
  y,
} from "./FrequencyGrid";
import { BANDS } from "./stages";
import { ValueField } from "./ValueField";

const CUT = "low_cut";
const CUT_DB = -12;

interface Props {
  strip: string;
  name: string;
  /** The bands stand beside the curve, where there is room, and not under it. */
  beside?: boolean;
}

/** Low cut and EQ of a strip: the core's curve, with a point for each band, dragged or by arrows. */
export function EqPanel({ strip, name, beside = false }: Props) {
  const curves = useShow((state) => (state.curves?.strip === strip ? state.curves : null));
  const [at, setAt] = useState<string>("3");
  const rows = useRows([CUT, ...BANDS]);
  if (!curves) return <Waiting />;
  return (
    <div
      className={
        beside
          ? "grid items-center gap-x-4 gap-y-2 @2xl:grid-cols-[minmax(0,10fr)_minmax(0,11fr)]"
          : "flex flex-col gap-2"
      }
    >
      <Plot narrow={beside} strip={strip} name={name} curves={curves} at={at} onAt={setAt} />
      <div className="overflow-x-auto">
        <table className="w-full text-[13.5px]" aria-label={`Bands of ${name}`}>
          <thead className="sr-only">
            <tr>
              {["Band", "Kind", "Frequency", "Gain", "Q"].map((word) => (
                <th key={word}>{word}</th>
              ))}
            </tr>
          </thead>
          <tbody {...rows.hand}>
            <InRow of={CUT} rows={rows}>
              <CutRow strip={strip} name={name} chosen={at === CUT} onAt={setAt} />
            </InRow>
            {BANDS.map((band) => (
              <InRow key={band} of={band} rows={rows}>
                <BandRow strip={strip} name={name} band={band} chosen={at === band} onAt={setAt} />
              </InRow>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

interface PlotProps {
  narrow: boolean;
  strip: string;
  name: string;
  curves: Curves;
  at: string;
  onAt: (band: string) => void;
}

function Plot({ narrow, strip, name, curves, at, onAt }: PlotProps) {
  const eq = useOn(`${strip}/eq/on`);
  const width = useGridWidth(narrow);
  const frequencies = curves.frequencies_hz;
  const total = lineOf(frequencies, curves.total_db, width);
  const band = curves.bands_db[at];
  return (
    <svg
      viewBox={viewBoxOf(width)}
      className="w-full max-h-[38vh] min-h-40 select-none touch-none overflow-visible"
      role="group"
      aria-label={`Curve of ${name}`}
    >
      <FrequencyGrid width={width} />
      <Within width={width}>
        <path d={`${total}L${width} ${y(0)}L0 ${y(0)}Z`} fill="var(--sea)" opacity={0.12} />
        {band && (
          <path
            d={lineOf(frequencies, band, width)}
            fill="none"
            stroke="var(--iris)"
            strokeWidth={1.4}
            strokeDasharray="4 3"
          />
        )}
        <path
          d={total}
          fill="none"
          stroke={eq ? "var(--sea)" : "var(--faint)"}
          strokeWidth={2.6}
          data-curve
        />
      </Within>
      <Point
        width={width}
        strip={strip}
        name={name}
        band="low_cut"
        chosen={at === "low_cut"}
        onAt={onAt}
      />
      {BANDS.map((one) => (
        <Point
          width={width}
          key={one}
          strip={strip}
          name={name}
          band={one}
          chosen={at === one}
          onAt={onAt}
        />
      ))}
    </svg>
  );
}

interface BandProps {
  strip: string;
  name: string;
  band: string;
  chosen: boolean;
  onAt: (band: string) => void;
}

/** A point of the curve: across its frequency, up and down its gain. */
function Point({ strip, name, band, chosen, onAt, width }: BandProps & { width: number }) {
  const link = useLink();
  const set = useSetByHand();
  const cut = band === "low_cut";
  const stem = cut ? `${strip}/low_cut` : `${strip}/eq/${band}`;
  const hertz = useLevel(`${stem}/frequency`) ?? LOW_HZ;
  const own = useLevel(cut ? `${stem}/frequency` : `${stem}/gain`) ?? 0;
  const on = useOn(cut ? `${stem}/on` : `${strip}/eq/on`);
  const range = useShow((state) => state.catalogue!.at(`${stem}/frequency`));
  const gain = cut ? CUT_DB : own; // a low cut has no gain: its point stands below the bands
  const reach = useCoarse() ? 42 : 26; // a finger needs more than a mouse
  const held = useRef<Gesture | null>(null);
  const [asked, setAsked] = useState<readonly [number, number] | null>(null);
  const place = (event: PointerEvent<SVGGElement>): readonly [number, number] => {
    const box = event.currentTarget.ownerSVGElement!.getScreenCTM()!.inverse();
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(box);
    return [Math.min(1, Math.max(0, at.x / width)), Math.min(1, Math.max(0, 1 - at.y / HEIGHT))];
  };
  const move = (event: PointerEvent<SVGGElement>) => {
    const [along, up] = place(event);
    setAsked([along, up]);
    // the same octaves, as a part of this control's own
    const span = Math.log(HIGH_HZ / LOW_HZ) / Math.log(range.highest! / range.lowest!);
    const moves: Move[] = [
      { address: `${stem}/frequency`, travel: Math.min(1, along * span) },
      ...(cut ? [] : [{ address: `${stem}/gain`, travel: up }]),
    ];
    link.draw(strip, moves); // the curve follows at once, the edit as fast as it is kept
    held.current?.move(byHand(moves, { stays: true }));
  };
  const up = () => {
    held.current?.end();
    held.current = null;
    setAsked(null);
  };
  const onKey = (event: KeyboardEvent) => {
    const fine = event.shiftKey;
    const steps: Record<string, [string, string]> = {
      ArrowRight: ["frequency", fine ? "up 0.02 oct" : "up 0.1 oct"],
      ArrowLeft: ["frequency", fine ? "down 0.02 oct" : "down 0.1 oct"],
      ...(cut
        ? {}
        : {
            ArrowUp: ["gain", fine ? "up 0.1" : "up 0.5"],
            ArrowDown: ["gain", fine ? "down 0.1" : "down 0.5"],
            "+": ["q", "up 0.1"],
            "-": ["q", "down 0.1"],
          }),
    };
    const step = steps[event.key];
    if (!step || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    set(`${stem}/${step[0]}`, step[1]);
  };
  const px = asked ? asked[0] * width : across(hertz) * width;
  const py = asked && !cut ? (1 - asked[1]) * HEIGHT : y(gain);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={cut ? `Low cut of ${name}` : `Band ${band} of ${name}`}
      aria-valuemin={LOW_HZ}
      aria-valuemax={HIGH_HZ}
      aria-valuenow={Math.round(hertz)}
      aria-valuetext={`${hertzText(hertz)}${cut ? "" : `, ${levelText(gain)} dB`}${on ? "" : ", off"}`}
      data-point={band}
      className="cursor-move outline-none"
      opacity={on ? 1 : 0.45}
      onFocus={() => onAt(band)}
      onKeyDown={onKey}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = new Gesture(link);
        onAt(band);
        event.currentTarget.focus();
      }}
      onPointerMove={(event) => held.current && move(event)}
      onPointerUp={up}
      onPointerCancel={up}
    >
      <circle cx={px} cy={py} r={reach} fill="transparent" />
      <circle
        cx={px}
        cy={py}
        r={12}
        fill={chosen ? "var(--sun)" : "var(--card)"}
        stroke={chosen ? "var(--sun)" : "var(--paper)"}
        strokeWidth={2}
      />
      <text
        x={px}
        y={py + 4.5}
        textAnchor="middle"
        fontSize={13}
        fontWeight={700}
        fill={chosen ? "var(--on-sun)" : "var(--paper)"}
        aria-hidden
      >
        {cut ? "/" : band}
      </text>
    </g>
  );
}

type RowProps = Omit<BandProps, "band">;

const rowClass = (chosen: boolean) => `h-9 coarse:h-12 ${chosen ? "bg-raise" : ""}`;

function CutRow({ strip, name, chosen, onAt }: RowProps) {
  const of = `low cut of ${name}`;
  return (
    <tr data-row={CUT} className={rowClass(chosen)} onFocus={() => onAt(CUT)}>
      <td className="w-10 text-center font-bold text-soft">/</td>
      <td className="whitespace-nowrap">
        <ValueField bare address={`${strip}/low_cut/on`} of={of} /> low cut
      </td>
      <td>
        <ValueField bare address={`${strip}/low_cut/frequency`} of={of} />
      </td>
      <td colSpan={2}>
        <span className="flex items-center gap-1 text-faint">
          <ValueField bare address={`${strip}/low_cut/slope`} of={of} /> dB/oct
        </span>
      </td>
    </tr>
  );
}

function BandRow({ strip, name, band, chosen, onAt }: RowProps & { band: string }) {
  const at = `${strip}/eq/${band}`;
  const of = `band ${band} of ${name}`;
  const flat = useText(`${at}/gain`) === "0";
  return (
    <tr
      data-row={band}
      className={`${rowClass(chosen)} ${flat ? "text-soft" : ""}`}
      onFocus={() => onAt(band)}
    >
      <td className={`text-center font-bold ${chosen ? "text-sun-text" : "text-soft"}`}>{band}</td>
      <td>
        <ValueField bare address={`${at}/kind`} of={of} />
      </td>
      <td className="min-w-[74px]">
        <ValueField bare address={`${at}/frequency`} of={of} />
      </td>
      <td>
        <ValueField bare address={`${at}/gain`} of={of} />
      </td>
      <td>
        <ValueField bare address={`${at}/q`} of={of} />
      </td>
    </tr>
  );
}
