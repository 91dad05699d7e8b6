import { useState } from "react";
import { makeShow } from "../data/http";
import { useShow } from "../data/use";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { Dialog } from "../ui/Dialog";

/** Make a blank show on a desk profile, and open it. */
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
  const [fault, setFault] = useState("");
  const make = async () => {
    try {
      const { id } = await makeShow(name, desk);
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
