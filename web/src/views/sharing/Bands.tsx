import { useMemo } from "react";
import { SLOTS } from "../../data/sharing";
import type { SharingRow } from "../../data/types";
import { useShow } from "../../data/use";
import { bandColour, bandPaths } from "./bands";

/** Who had how much of the one gain in the last minute: bands that fill one width. */
export function Bands({ group, name }: { group: SharingRow; name: string }) {
  const minute = useShow((state) => state.shares.minute);
  const strips = useMemo(() => group.members.map((one) => one.strip), [group.members]);
  const paths = useMemo(() => bandPaths(strips, minute, SLOTS), [strips, minute]);
  const empty = paths.every((path) => path === "");
  return (
    <figure className="flex flex-col gap-1">
      <figcaption className="flex justify-between text-faint text-[12px]">
        <span>a minute ago</span>
        <span>
          {empty
            ? "Nothing was measured: let them talk, or wait for the stage."
            : "who had how much of it"}
        </span>
        <span>now</span>
      </figcaption>
      <svg
        role="img"
        aria-label={`Shares of ${name} in the last minute`}
        viewBox={`0 0 ${SLOTS} 1`}
        preserveAspectRatio="none"
        className="w-full h-20 rounded-lg bg-raise"
      >
        {paths.map((path, place) => (
          <path key={strips[place]} d={path} fill={bandColour(place)} shapeRendering="crispEdges" />
        ))}
      </svg>
    </figure>
  );
}
