import { useEffect, useState } from "react";
import { sceneNumber } from "../../data/scenes";
import type { Scene } from "../../data/types";
import { useShow, useText, useValue } from "../../data/use";

interface Props {
  scene: string | null;
  word: string;
  /** How long it has stood. */
  since?: boolean;
  told?: Scene | null;
}

/** A scene, to be read from two metres: its number, its name, and what matters of it. */
export function SceneBoard({ scene, word, since, told }: Props) {
  const big = word === "Next";
  return (
    <section
      aria-label={word}
      data-scene-board={word}
      className={`flex-1 slim:basis-auto min-w-0 min-h-36 rounded-2xl border p-4 flex flex-col gap-1 overflow-hidden ${
        big ? "border-iris bg-card" : "border-line bg-floor"
      }`}
    >
      <div className="flex items-baseline gap-3">
        <h2 className="text-soft text-[18px]">{word}</h2>
        {since && scene && <Since />}
      </div>
      {scene === null ? (
        <p className="text-faint text-[26px]">
          {big ? "No scene follows" : "No scene was recalled"}
        </p>
      ) : (
        <Board scene={scene} told={told} />
      )}
    </section>
  );
}

function Board({ scene, told }: { scene: string; told?: Scene | null }) {
  const number = useShow((state) => sceneNumber(state, scene));
  const name = useText(`${scene}/name`);
  const notes = useText(`${scene}/notes`);
  const seconds = Number(useValue(`${scene}/seconds`));
  return (
    <>
      <p
        className="flex items-baseline gap-4 font-title font-bold leading-tight text-[46px] phone:text-[30px]"
        aria-live="polite"
      >
        <span className="text-iris">{number}</span>
        <span dir="auto" className="min-w-0 break-words line-clamp-2">
          {name}
        </span>
      </p>
      {notes && <p className="text-soft text-[18px] line-clamp-2">{notes}</p>}
      {told && (
        <>
          <p
            className={`text-[23px] phone:text-[19px] leading-snug line-clamp-4 ${told.refused ? "text-coral" : ""}`}
            data-testid="in-one-line"
          >
            {told.says}
            {seconds > 0 && <span className="text-soft"> · over {seconds} s</span>}
          </p>
          {told.warns.length > 0 && (
            <p className="text-coral text-[18px] font-semibold line-clamp-2">
              <span aria-hidden className="inline-block w-3 h-3 bg-coral rotate-45 mr-2" />
              {told.warns[0]}
              {told.warns.length > 1 && ` and ${told.warns.length - 1} more`}
            </p>
          )}
        </>
      )}
    </>
  );
}

/** How long the scene has stood, in minutes and seconds. */
function Since() {
  const since = Number(useValue("run/since"));
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, []);
  if (!since) return null;
  const seconds = Math.max(0, Math.floor(now / 1000 - since));
  const minutes = Math.floor(seconds / 60);
  const text =
    minutes < 60
      ? `${minutes}:${String(seconds % 60).padStart(2, "0")}`
      : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
  return <span className="text-faint text-[16px]">for {text}</span>;
}
