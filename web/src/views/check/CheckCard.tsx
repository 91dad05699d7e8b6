import { numberOf } from "../../data/address";
import { valueIn } from "../../data/show";
import {
  fedBy,
  socketName,
  stripName,
  useLink,
  useShow,
  useStripName,
  useText,
} from "../../data/use";
import { KIND_WORD } from "../../data/words";
import { Button } from "../../ui/Button";
import { LevelMeter } from "../../ui/LevelMeter";
import { TypedField } from "../../ui/TypedField";
import { LinePreamps } from "../patch/LinePreamps";

interface Props {
  line: number;
  fed: "tone" | "noise" | null;
  /** Good was pressed with nothing arriving: asked once whether that is meant. */
  unsure: boolean;
  onFeed: (signal: "tone" | "noise") => void;
  onJudge: (verdict: "good" | "bad") => void;
  onStep: (by: number) => void;
}

/** The line in hand, large: what it is, where it should arrive, what does arrive. */
export function CheckCard({ line, fed, unsure, onFeed, onJudge, onStep }: Props) {
  const link = useLink();
  const at = (leaf: string) => `line/${line}/${leaf}`;
  const name = useText(at("name"));
  const verdict = useText(at("check"));
  const kind = KIND_WORD[useText(at("kind"))];
  const about = [useText(at("microphone")) || kind, useText(at("performer")), useText(at("where"))]
    .filter(Boolean)
    .join(" · ");
  const place = useShow((state) => {
    const socket = valueIn(state, at("socket")) as string | null;
    if (!socket) return "no socket";
    const channel = fedBy(state, socket)[0];
    const played = [...state.played].find((one) => valueIn(state, `${one}/source`) === socket);
    if (!channel && played) {
      const track = socketName(state, String(valueIn(state, `${played}/spare`)));
      return `${track} → ${numberOf(played)} ${stripName(state, played)}, played back`;
    }
    return `${socketName(state, socket)} → ${channel ? `${channel} ${stripName(state, `channel/${channel}`)}` : "no channel"}`;
  });
  const phantom = useShow((state) => valueIn(state, at("phantom")) === true);
  const big = "h-14 flex-1 justify-center text-lg";
  return (
    <section
      aria-label={`Checking ${name}`}
      className="rounded-2xl bg-floor border border-line p-4 phone:p-3 flex flex-col gap-3 md:min-h-0 md:scrolls"
    >
      <div>
        <div className="flex items-baseline gap-3">
          <h2 dir="auto" className="font-title text-2xl font-bold min-w-0 break-words">
            {name}
          </h2>
          {verdict !== "unchecked" && (
            <span
              className={verdict === "good" ? "text-sea font-semibold" : "text-coral font-semibold"}
            >
              {verdict}
            </span>
          )}
        </div>
        <p className="text-soft">
          {about}
          {phantom && " · needs 48 V"}
        </p>
        <p className="text-lg mt-1">{place}</p>
        <div className="flex flex-wrap gap-x-4 gap-y-1 mt-1 text-[13px] max-md:[&_button]:!h-11 max-md:[&_input]:!h-11">
          <LinePreamps line={line} />
        </div>
      </div>
      <Meter line={line} fed={fed !== null} />
      <div className="flex gap-2">
        <Button
          className={`${big} ${fed === "tone" ? "!border-sun !text-sun-text" : ""}`}
          aria-pressed={fed === "tone"}
          onClick={() => onFeed("tone")}
          aria-keyshortcuts="T"
        >
          {fed === "tone" ? "Stop the tone" : "Tone"}
        </Button>
        <Button
          className={`${big} ${fed === "noise" ? "!border-sun !text-sun-text" : ""}`}
          aria-pressed={fed === "noise"}
          onClick={() => onFeed("noise")}
        >
          {fed === "noise" ? "Stop the noise" : "Noise"}
        </Button>
      </div>
      <p className={fed ? "text-sun-text" : "text-faint"} data-testid="feeding">
        {fed
          ? `The ${fed} is on here, and goes along to each line that you walk to, by itself. "Stop the ${fed}"${fed === "tone" ? " (T)" : ""} ends it.`
          : "Nothing is fed. Tone (T) starts one, which then goes along from line to line."}
      </p>
      <div className="flex gap-2">
        <Button
          className={`${big} ${unsure ? "!bg-sun !text-on-sun" : "!border-sea !text-sea"}`}
          onClick={() => onJudge("good")}
          aria-keyshortcuts="G"
        >
          {unsure ? "✓ Good all the same" : "✓ Good"}
        </Button>
        <Button className={big} tone="danger" onClick={() => onJudge("bad")} aria-keyshortcuts="B">
          ✗ Bad
        </Button>
      </div>
      {unsure && (
        <p role="alert" className="text-coral font-semibold -mt-1">
          Nothing arrives from {name}. Press Good (G) again if it is good all the same.
        </p>
      )}
      <TypedField
        boxed
        label={`Note on ${name}`}
        placeholder="Note: what is wrong"
        value={useText(at("check_note"))}
        maxLength={200}
        className="h-11 shrink-0 px-3"
        onCommit={(typed) => void link.type(at("check_note"), typed)}
        data={{ id: "check-note" }}
      />
      <div className="flex gap-2">
        <Button className={big} onClick={() => onStep(-1)} aria-keyshortcuts="ArrowUp">
          ↑ Before
        </Button>
        <Button className={big} onClick={() => onStep(1)} aria-keyshortcuts="ArrowDown">
          ↓ Next
        </Button>
      </div>
      <p className="text-[12.5px] text-faint hidden md:block">
        Keys: T tone on or off, G good (and on to the next), B bad, N note, ↑ ↓ walk the list.
      </p>
      <StandIn line={line} />
    </section>
  );
}

function Meter({ line, fed }: { line: number; fed: boolean }) {
  const link = useLink();
  const meters = useShow((state) => (state.meters?.line === line ? state.meters : null));
  const suspect = meters?.suspect ?? null;
  const otherName = useShow((state) =>
    suspect === null ? "" : stripName(state, `line/${suspect}`),
  );
  const name = useStripName(`line/${line}`);
  const dbfs = meters?.dbfs ?? null;
  const expected = meters?.expected_dbfs ?? null;
  const tone = meters?.good
    ? "text-sea"
    : dbfs === null && !otherName
      ? "text-faint"
      : "text-coral";
  return (
    <div>
      <LevelMeter label={`Level of ${name}`} dbfs={dbfs} wanted={expected} wantedWord="expected" />
      <p className={`mt-1.5 min-h-6 ${tone}`} role="status" data-testid="arrival">
        {meters
          ? fed || dbfs !== null || otherName
            ? meters.says
            : "Feed it, or have somebody tap it."
          : "No stage answers. bin/demo starts a stand-in."}
      </p>
      {suspect !== null && (
        <Button
          tone="main"
          className="mt-1 !h-11"
          onClick={() =>
            void link.do({ action: "swap_lines", lines: [line, suspect] }, { quiet: false })
          }
        >
          Swap {name} and {otherName} in the patch
        </Button>
      )}
    </div>
  );
}

/** What only the stand-in stage can: to try what a swapped cable looks like. */
function StandIn({ line }: { line: number }) {
  const link = useLink();
  const next = useShow((state) => state.lines[state.lines.indexOf(line) + 1] ?? null);
  const name = useShow((state) => (next === null ? "" : stripName(state, `line/${next}`)));
  if (next === null) return null;
  return (
    <p className="text-[12.5px] text-faint hidden md:flex items-center gap-2 flex-wrap">
      Stand-in stage:
      <Button small tone="quiet" onClick={() => link.swapCables(line, next)}>
        swap its cable with {name}'s
      </Button>
      <Button small tone="quiet" onClick={() => link.straightCables()}>
        plug all as patched
      </Button>
    </p>
  );
}
