import { OWN_WORDS } from "./ownWords";

/** Some of our own words with what each means. */
export function OwnWords({ of }: { of: readonly string[] | undefined }) {
  if (!of) return null;
  return (
    <dl className="mt-3 flex flex-col gap-1.5 leading-snug">
      {of.map((word) => (
        <div key={word}>
          <dt className="inline font-semibold">{word}: </dt>
          <dd className="inline text-soft">{OWN_WORDS.get(word.toLowerCase())?.says}</dd>
        </div>
      ))}
    </dl>
  );
}
