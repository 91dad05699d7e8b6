import { useLink, useShow } from "../data/use";
import { Button } from "../ui/Button";

/** While channels hear their tracks and not the stage: how many, and the way back, everywhere. */
export function PlaybackLine() {
  const link = useLink();
  const played = useShow((state) => state.played.size);
  if (played === 0) return null;
  const back = () =>
    void link.do({ action: "switch_playback", on: false, family: "" }, { quiet: false });
  return (
    <div
      role="status"
      aria-label="Playback"
      className="shrink-0 flex items-center gap-x-3 mx-4 phone:mx-2 mt-2 px-3 py-1 rounded-lg border border-sun"
    >
      <span className="text-sun-text flex-1 min-w-0">
        <strong>Playback:</strong> {played}{" "}
        {played === 1 ? "channel hears its track" : "channels hear their tracks"}, not the stage
      </span>
      <Button small onClick={back} aria-label="Back from playback to the stage">
        Back
      </Button>
    </div>
  );
}
