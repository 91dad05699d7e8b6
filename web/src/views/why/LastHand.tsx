import { useEffect, useState } from "react";
import { lastHand } from "../../data/http";
import type { LastHand as Told } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { setterText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Waiting } from "../../ui/Waiting";

/** Who moved a value last, when, and what it was before; and the way back there. */
export function LastHand({ address, name }: { address: string; name: string }) {
  const link = useLink();
  const showId = useShow((state) => state.desk!.show.id);
  const revision = useShow((state) => state.revision);
  const [told, setTold] = useState<Told | string | null>(null);
  useEffect(() => {
    let current = true;
    lastHand(showId, address).then(
      (found) => current && setTold(found),
      (error: Error) => current && setTold(error.message),
    );
    return () => {
      current = false;
    };
  }, [showId, address, revision]);
  if (told === null) return <Waiting />;
  if (typeof told === "string")
    return (
      <p role="alert" className="text-coral text-[13px]">
        {told}
      </p>
    );
  const back = () =>
    void link.do(
      {
        action: "moves",
        moves: [{ address, value: told.was_value }],
        says: `${name} as it was before`.slice(0, 120),
      },
      { quiet: false },
    );
  return (
    <div className="text-[13px] text-soft flex items-center gap-2 flex-wrap" role="status">
      <span>
        {told.at === null
          ? "Nobody has moved it yet, as far as the history is looked through."
          : `${told.kind === "edit" ? "Set" : "Brought back"} by ${setterText({ by: told.by, at: told.at })}`}
        {told.was !== null && `; before: ${told.was}`}
        {told.at !== null && told.was === null && ": its strip had another number until then"}
      </span>
      {told.back && (
        <Button small onClick={back}>
          As it was: {told.was}
        </Button>
      )}
    </div>
  );
}
