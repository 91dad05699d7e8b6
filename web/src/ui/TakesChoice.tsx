import { useLink, useShow, useText } from "../data/use";
import { optionText } from "../data/words";
import { Choice } from "./Choice";
import { OwnWord } from "./OwnWord";

const WORD: Record<string, string> = {
  chosen: "only who is chosen",
  inputs: "all inputs, later ones too",
  ears: "all ears, later ones too",
  all: "all sources, later ones too",
};

/** What joins a group or a promise by itself when it comes: nobody, all of something, a family. */
export function TakesChoice({ of, name }: { of: string; name: string }) {
  const link = useLink();
  const takes = useText(`${of}/takes`);
  const options = useShow((state) => state.catalogue!.at(`${of}/takes`).options ?? NONE);
  return (
    <span className="flex items-center gap-1.5">
      <span className="text-soft">
        <OwnWord word="Takes" />
      </span>
      <Choice
        boxed
        label={`What ${name} takes`}
        value={takes || "chosen"}
        className="h-8 coarse:h-11 max-w-56"
        options={options.map((one) => [one, WORD[one] ?? `all ${optionText(one)}`] as const)}
        onChange={(value) => void link.put(`${of}/takes`, value, { quiet: false })}
      />
    </span>
  );
}

const NONE: readonly string[] = [];
