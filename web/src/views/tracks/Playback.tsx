import type { Tracks, WayBack } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Empty } from "../../ui/Panel";
import { TypedField } from "../../ui/TypedField";

const TONES: Readonly<Record<string, readonly [tone: string, word: string]>> = {
  loop: ["text-sun-text", "Loop"],
  twice: ["text-coral", "Twice"],
  promise: ["text-coral", "Promise"],
  live: ["text-soft", "Live"],
};

/** The tracks' way back: as spares of their channels, by one key, told before it is pressed. */
export function Playback({ told }: { told: Tracks }) {
  const { back } = told;
  if (back.able + back.laid + back.playing === 0)
    return (
      <Empty title="Nothing can be played back yet">
        <p>
          Tracks that carry channels raw go back into these channels: record lines raw, and take the
          plan. What is recorded processed would be processed twice.
        </p>
      </Empty>
    );
  return (
    <div className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1 max-w-4xl">
      <Key back={back} />
      <Before back={back} />
      <Spares back={back} />
      <Listen recorder={told.recorder} />
      <StandIn recorder={told.recorder} />
      <Where told={told} />
    </div>
  );
}

function Key({ back }: { back: WayBack }) {
  const link = useLink();
  const on = back.playing > 0;
  const turn = (wanted: boolean, family = "") =>
    void link.do({ action: "switch_playback", on: wanted, family }, { quiet: false });
  return (
    <section
      aria-label="The key"
      className={`rounded-xl border p-3 flex flex-col gap-3 ${on ? "border-sun bg-card" : "border-line bg-floor"}`}
    >
      <div className="flex items-center gap-3 flex-wrap">
        <Button
          tone={on ? "main" : undefined}
          aria-pressed={on}
          disabled={!on && back.laid === 0}
          className="h-14 px-6 text-[18px] font-title font-bold"
          onClick={() => turn(!on)}
        >
          {on ? "Back to the stage" : "Play the tracks"}
        </Button>
        <span role="status" className={on ? "text-sun-text text-[16px]" : "text-soft"}>
          {on
            ? `${back.playing} of ${back.laid} channels hear their tracks, not the stage`
            : `${back.laid} ${back.laid === 1 ? "channel has its track as spare" : "channels have their tracks as spares"}; the stage is live`}
        </span>
      </div>
      {back.families.length > 1 && (
        <div className="flex items-center gap-2 flex-wrap">
          <span className="text-soft text-[13.5px]">Only</span>
          {back.families.map((family) => (
            <Button key={family} small onClick={() => turn(true, family)}>
              {family}
            </Button>
          ))}
        </div>
      )}
      <p className="text-faint text-[13px]">
        Sockets, gains, 48 V and outputs stay as they are. Back leads to what stood before.
      </p>
    </section>
  );
}

/** What playback would do beside what is wanted of it. */
function Before({ back }: { back: WayBack }) {
  if (back.told.length === 0) return null;
  return (
    <ul aria-label="What to know before" className="flex flex-col gap-1">
      {back.told.map((one) => (
        <li
          key={one.says}
          data-tone={one.tone}
          className="flex gap-3 rounded-lg bg-floor px-3 py-1.5"
        >
          <strong className={`w-16 shrink-0 ${TONES[one.tone]?.[0] ?? ""}`}>
            {TONES[one.tone]?.[1]}
          </strong>
          <span className="min-w-0 break-words">{one.says}</span>
        </li>
      ))}
    </ul>
  );
}

function Spares({ back }: { back: WayBack }) {
  const link = useLink();
  const lay = (over: string[]) => void link.do({ action: "lay_playback", over }, { quiet: false });
  const missing = back.able - back.taken.length - back.laid;
  return (
    <section aria-label="Spares" className="flex flex-col gap-2">
      {missing > 0 && (
        <div className="flex items-center gap-3 flex-wrap">
          <Button tone={back.laid ? undefined : "main"} onClick={() => lay([])}>
            Make tracks the spares of their channels
          </Button>
          <span className="text-soft">{missing} more can</span>
        </div>
      )}
      {back.taken.map((one) => (
        <div key={one.channel} className="flex items-center gap-3 rounded-lg bg-floor px-3 py-1.5">
          <span className="flex-1 min-w-0">
            Its spare is something else. <bdi>{one.says}</bdi>
          </span>
          <Button small onClick={() => lay([one.channel])}>
            Let the track take over
          </Button>
        </div>
      ))}
    </section>
  );
}

/** A stereo mix of the computer, for the engineer alone. */
function Listen({ recorder }: { recorder: string }) {
  const link = useLink();
  return (
    <label className="flex items-center gap-2 flex-wrap text-soft">
      Two tracks for the engineer alone
      <TypedField
        boxed
        label="Two tracks that only the engineer hears"
        value=""
        placeholder="31-32"
        className="w-24 coarse:h-11"
        onCommit={(tracks) => void link.do({ action: "listen_channels", tracks }, { quiet: false })}
      />
      <span className="text-faint text-[13px]">
        on the next free pair of channels, from {recorder}: in no bus, heard by solo
      </span>
    </label>
  );
}

/** The stand-in recorder: files of tones, called as the plan calls the tracks. */
function StandIn({ recorder }: { recorder: string }) {
  const link = useLink();
  return (
    <div className="flex items-center gap-2 flex-wrap text-soft">
      <span>{recorder} as a stand-in</span>
      <Button small onClick={() => link.recorder("record")}>
        Record 10 s
      </Button>
      <Button small onClick={() => link.recorder("play")}>
        Let it play
      </Button>
      <Button small onClick={() => link.recorder("stop")}>
        Let it stop
      </Button>
      <span className="text-faint text-[13px]">
        writes a file a track, named and as loud as expected; played, meters and the line check see
        it
      </span>
    </div>
  );
}

/** Which track plays into which channel. */
function Where({ told }: { told: Tracks }) {
  const laid = told.tracks.filter((track) => track.plays_into.length > 0);
  if (laid.length === 0) return null;
  return (
    <section aria-label="Which track plays into which channel">
      <ul className="tracks-list">
        {laid.map((track) => (
          <li key={track.track} className="flex gap-2 rounded-md bg-floor px-2 h-8 items-center">
            <span className="w-7 text-right text-faint tabular-nums">{track.track}</span>
            <span aria-hidden className="text-faint">
              →
            </span>
            <bdi className="truncate">{track.plays_into.join(", ")}</bdi>
          </li>
        ))}
      </ul>
    </section>
  );
}
