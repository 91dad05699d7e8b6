import { type ReactNode, useState } from "react";
import type { Ask } from "../data/types";
import { useLink, useShow } from "../data/use";
import { optionText } from "../data/words";
import { Button } from "./Button";
import { Choice } from "./Choice";

interface Props<Leaf extends string> {
  label: string;
  /** What they are, many: "lines". */
  word: string;
  /** Of what there is many, by address. */
  of: readonly string[];
  /** What can be set of all at once, by leaf and word. */
  fields: readonly (readonly [Leaf, string])[];
  /** Another edit than plain values, for a leaf that wants one. */
  ask?: (leaf: Leaf, value: string) => Ask | null;
  /** Who makes the edit, where somebody is to be asked first. */
  onSet?: (ask: Ask) => void;
  /** What else can be done with them. */
  children?: ReactNode;
}

/** One value for many at once, in one edit. */
export function SetMany<Leaf extends string>(props: Props<Leaf>) {
  const { of, fields } = props;
  const link = useLink();
  const [leaf, setLeaf] = useState<Leaf>(fields[0]![0]);
  const [text, setText] = useState("");
  const kind = useShow((state) => state.catalogue!.at(`${of[0]!}/${leaf}`));
  const choices = kind.kind === "switch" ? ["on", "off"] : (kind.options ?? NONE);
  const value = choices.length > 0 && !choices.includes(text) ? choices[0]! : text;
  const set = () => {
    const moves = of.map((one) => ({ address: `${one}/${leaf}`, typed: value }));
    const says = `${fields.find(([key]) => key === leaf)![1]} of ${of.length} ${props.word}`;
    const ask = props.ask?.(leaf, value) ?? ({ action: "moves", moves, says } as const);
    if (props.onSet) props.onSet(ask);
    else void link.do(ask, { quiet: false });
  };
  return (
    <form
      aria-label={props.label}
      className="flex items-center gap-1.5 pb-2 shrink-0 flex-wrap"
      onSubmit={(event) => {
        event.preventDefault();
        set();
      }}
    >
      <span className="text-soft whitespace-nowrap">{of.length} chosen: set</span>
      <Choice
        boxed
        label="Field to set"
        value={leaf}
        options={fields}
        onChange={(chosen) => setLeaf(chosen as Leaf)}
      />
      {choices.length > 0 ? (
        <Choice
          boxed
          label="Value to set"
          value={value}
          options={choices.map((one) => [one, optionText(one)] as const)}
          onChange={setText}
          className="flex-1"
        />
      ) : (
        <input
          aria-label="Value to set"
          className="h-7 px-2 rounded-md border border-edge bg-card flex-1 min-w-0"
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
      )}
      <Button small type="submit">
        Set
      </Button>
      {props.children}
    </form>
  );
}

const NONE: readonly string[] = [];
