import { useShow } from "../data/use";
import { VIEW_WORD } from "./places";

/** Who else has the show open, and where. */
export function Others() {
  // performers' phones stand in Ears and wedges: here are those who run the show
  const everybody = useShow((state) => state.others);
  const others = everybody.filter((other) => other.view !== "phone");
  const unnamed = useShow((state) => state.othersMore);
  if (others.length === 0) return null;
  const said = others.map((other) => `${other.name} in ${VIEW_WORD[other.view] ?? "the show"}`);
  const more = said.length - 2 + unnamed;
  return (
    <span
      dir="auto"
      className="min-w-0 truncate text-[12.5px] text-soft max-w-64 phone:hidden"
      role="status"
      title={said.join("\n")}
      data-testid="others"
    >
      <span className="sr-only">Also here: </span>
      {said.slice(0, 2).join(", ")}
      {more > 0 && ` and ${more} more`}
    </span>
  );
}
