import { useEffect } from "react";
import { valueIn } from "../../data/show";
import { fedBy, stripName, useLink, useShow, useStripName } from "../../data/use";
import { Button } from "../../ui/Button";

/** A line has a new name, and its channels still have the old one: offer it to them too. */
export function Renamed({ line, onDone }: { line: number; onDone: () => void }) {
  const link = useLink();
  const name = useStripName(`line/${line}`);
  const called = useShow((state) => {
    const fed = ["socket", "socket_right"].flatMap((leaf) =>
      fedBy(state, valueIn(state, `line/${line}/${leaf}`) as string | null),
    );
    return fed.map((n) => `${n} ${stripName(state, `channel/${n}`)}`).join(" and ");
  });
  useEffect(() => {
    if (!called) onDone();
  }, [called, onDone]);
  if (!called) return null;
  const follow = async () => {
    if (await link.do({ action: "name_channels", lines: [line] }, { quiet: false })) onDone();
  };
  return (
    <p
      role="status"
      className="flex items-center gap-3 shrink-0 rounded-xl border border-sun bg-floor px-3 py-1.5 mb-2"
    >
      <span className="flex-1 min-w-0">
        The line is <strong>{name}</strong> now; the channel is still called{" "}
        <strong>{called}</strong>.
      </span>
      <Button small tone="main" onClick={() => void follow()}>
        Rename the channel too
      </Button>
      <Button small onClick={onDone}>
        Leave it
      </Button>
    </p>
  );
}
