/** What Why answers for, told by where one works: `data-subject` names the things of a row. */
import { isBus, isOf, isSource, thingOf } from "./address";
import { type ShowState, store, valueIn } from "./show";
import { fedBy, select } from "./use";

/** The source and the listener among some things: a line's or a socket's is its channel. Either may be missing. */
export function subjectAmong(
  state: ShowState,
  things: readonly string[],
): { source: string | null; listener: string | undefined } {
  let source: string | null = null;
  let listener: string | undefined;
  for (const thing of things) {
    if (isOf(thing, "line", "input")) {
      const plugged = isOf(thing, "input") ? thing : valueIn(state, `${thing}/socket`);
      const [channel] = fedBy(state, plugged as string | null);
      if (channel) source ??= `channel/${channel}`;
    } else if (isSource(thing)) source ??= thingOf(thing).thing;
    else if (isBus(thing)) listener ??= thingOf(thing).thing;
  }
  return { source, listener };
}

/** Why answers for some things from now on; it stays where they hear and are heard by nobody. */
export function follow(...things: readonly string[]): void {
  const { source, listener } = subjectAmong(store.getState(), things);
  if (source || listener) select(source, listener);
}

/** A hand came to an element: Why follows to what its row is about. */
export function followTo(target: EventTarget): void {
  if (!(target instanceof Element)) return;
  const at = target.closest<HTMLElement>("[data-subject]");
  if (at) follow(...at.dataset.subject!.split(" "));
}
