import { useState } from "react";
import { begin } from "../data/begun";
import { bringList, makeShow } from "../data/http";
import { useShow } from "../data/use";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";

/**
 * Make a blank show on a desk profile, and open it. The band's list and the names of those who wear
 * ears can be given already: the list is shown first as always, the ears are made once it is taken.
 */
export function NewShowDialog({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const desks = useShow((state) => state.me?.desks);
  const [name, setName] = useState("");
  const [desk, setDesk] = useState("touring-48");
  const [file, setFile] = useState<File | null>(null);
  const [ears, setEars] = useState("");
  const [channels, setChannels] = useState("");
  const [fault, setFault] = useState("");
  const make = async () => {
    try {
      const { id } = await makeShow(name, desk);
      let list: string | null = null;
      let unread = "";
      try {
        if (file) list = (await bringList(id, file)).file;
      } catch (error) {
        unread = (error as Error).message; // the show is made: it is said where the list is asked for
      }
      begin(id, { list, ears, channels, fault: unread });
      location.assign(`/lines?show=${id}&new=1`);
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  return (
    <Dialog
      title="New show"
      about="Blank, on a desk of your choice."
      open={open}
      onOpenChange={onOpenChange}
    >
      <form
        className="mt-4 flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <input
          autoFocus
          aria-label="Name of the show"
          placeholder="Name of the show"
          maxLength={60}
          className="h-9 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Choice
          boxed
          label="Desk"
          value={desk}
          options={(desks ?? []).map((one) => [one.key, one.name] as const)}
          onChange={setDesk}
          className="h-9"
        />
        <label className="flex flex-col gap-1 text-faint text-[13px]">
          The band's input list, if it is there
          <input
            type="file"
            aria-label="The band's input list"
            accept=".csv,.tsv,.txt,.xlsx"
            className="h-9 coarse:h-11 text-paper file:mr-3 file:h-full file:px-3 file:rounded-lg file:border file:border-line file:bg-raise file:text-paper file:cursor-pointer"
            onChange={(event) => setFile(event.currentTarget.files?.[0] ?? null)}
          />
        </label>
        <div className="flex gap-2 flex-wrap">
          <input
            aria-label="Who wears ears"
            placeholder="Who wears ears: Ana, Ben"
            maxLength={400}
            className="h-9 coarse:h-11 flex-1 min-w-44 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
            value={ears}
            onChange={(event) => setEars(event.currentTarget.value)}
          />
          <input
            aria-label="Channels in their ears"
            placeholder="Channels: 1-16"
            maxLength={200}
            className="h-9 coarse:h-11 w-36 px-2.5 rounded-lg border border-edge bg-card placeholder:text-faint"
            value={channels}
            onChange={(event) => setChannels(event.currentTarget.value)}
          />
        </div>
        {fault && (
          <p role="alert" className="text-coral">
            {fault}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={() => onOpenChange(false)}>Cancel</Button>
          <Button tone="main" type="submit" disabled={!name.trim()}>
            Make the show
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
