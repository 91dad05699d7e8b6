import { type Dispatch, type SetStateAction, useEffect, useMemo, useRef, useState } from "react";
import type { Ask } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Entry } from "../../ui/Entry";
import { MakeForm } from "../../ui/MakeForm";

type Style = "osc" | "show_control" | "program";
const STYLES = [
  ["osc", "12 as /cue 12"],
  ["show_control", "12 as GO 12"],
  ["program", "12 as program 12"],
] as const;

interface Props {
  text: string;
  setText: Dispatch<SetStateAction<string>>;
  /** How many scenes have no cue. */
  without: number;
}

/** A cue in one line, a pasted list of them, or one for every scene. */
export function NewCue({ text, setText, without }: Props) {
  const link = useLink();
  const [style, setStyle] = useState<Style>("osc");
  const field = useRef<HTMLInputElement>(null);
  const ask = useMemo<Ask | null>(
    () => (text.trim() ? { action: "add_cues", text, style } : null),
    [text, style],
  );
  const taken = text.endsWith("-> ");
  useEffect(() => {
    // a message that was taken waits for what it does
    if (taken) field.current?.focus();
  }, [taken]);
  return (
    <MakeForm label="New cues" word="Add" tone="main" ask={ask} fields={[[text, setText]]}>
      <Entry
        label="What comes, and what it does"
        placeholder="12 -> scene 4.5; note 60 -> mute group 2 on; /lights/go 3 -> note: stand by"
        value={text}
        onChange={setText}
        maxLength={20000}
        field={field}
        className="flex-1 min-w-64 max-w-3xl phone:min-w-full"
      />
      <Choice
        boxed
        label="How a bare number comes"
        value={style}
        options={STYLES}
        onChange={(to) => setStyle(to as Style)}
        className="coarse:h-11 h-9"
      />
      {without > 0 && (
        <Button
          type="button"
          className="order-last coarse:h-11"
          onClick={() => void link.do({ action: "cues_for_scenes", style }, { quiet: false })}
        >
          {without === 1 ? "A cue for the scene without" : `Cues for ${without} scenes without`}
        </Button>
      )}
    </MakeForm>
  );
}
