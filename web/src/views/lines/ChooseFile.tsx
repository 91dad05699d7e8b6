import { type DragEvent, useEffect, useEffectEvent, useState } from "react";
import { getSample, getSamples } from "../../data/http";
import type { Sample } from "../../data/types";
import { Button } from "../../ui/Button";
import { Waiting } from "../../ui/Waiting";

/** A file dropped or chosen, or a sample that ships with Ombrel. */
export function ChooseFile({ onFile }: { onFile: (file: File) => void }) {
  const [samples, setSamples] = useState<Sample[]>([]);
  const [over, setOver] = useState(false);
  const [wanted, setWanted] = useState<Sample | null>(null);
  const [refused, setRefused] = useState("");
  useEffect(() => {
    getSamples().then(setSamples, () => setSamples([]));
  }, []);
  const taken = useEffectEvent(onFile);
  // a store may let wait: whoever wants another one meanwhile, or a file, gets only that
  useEffect(() => {
    if (!wanted) return;
    let passed = false;
    const unlessPassed = (act: () => void) => {
      if (passed) return;
      setWanted(null);
      act();
    };
    getSample(wanted.name).then(
      (file) => unlessPassed(() => taken(file)),
      (error: Error) => unlessPassed(() => setRefused(error.message)),
    );
    return () => {
      passed = true;
    };
  }, [wanted]);
  const take = (sample: Sample) => {
    setRefused("");
    setWanted(sample);
  };
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const dropped = event.dataTransfer.files[0];
    if (dropped) onFile(dropped);
  };
  return (
    <>
      <label
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
        className={`grid place-items-center h-36 rounded-2xl border-2 border-dashed cursor-pointer focus-within:outline-2 focus-within:outline-sun ${over ? "border-sun bg-raise" : "border-edge bg-card"}`}
      >
        <span className="text-soft">
          Drop a file here, or <span className="text-sun-text underline">choose one</span>
        </span>
        <input
          type="file"
          aria-label="Input list file"
          accept=".csv,.tsv,.txt,.xlsx"
          className="sr-only"
          onChange={(event) => {
            const chosen = event.currentTarget.files?.[0];
            if (chosen) onFile(chosen);
          }}
        />
      </label>
      {samples.length > 0 && (
        <div>
          <p className="text-faint text-[13px] mb-1.5">Or try one that ships with Ombrel:</p>
          <div className="flex gap-2 flex-wrap">
            {samples.map((sample) => (
              <Button key={sample.name} small onClick={() => take(sample)} title={sample.about}>
                {sample.name}
              </Button>
            ))}
          </div>
          {wanted && <Waiting className="mt-1.5" />}
          {refused && (
            <p role="alert" className="text-coral mt-1.5">
              {refused}
            </p>
          )}
        </div>
      )}
    </>
  );
}
