import { Link as RouteLink } from "wouter";
import { stripPath } from "../../data/strips";
import type { Scene, SceneListener } from "../../data/types";
import { cellText } from "../../data/words";
import { PinKey } from "../../ui/PinKey";
import { InRow, useRows, useTabIndex } from "../../ui/reach";

const keyOf = (change: Scene["changes"][number]) => `${change.whose} ${change.what}`;

/** What a recall would do now: to whom, in which values, and what it leaves alone and why. */
export function SceneEffect({ scene }: { scene: Scene }) {
  const rows = useRows([...scene.changes.map(keyOf), ...scene.pinned.map((one) => one.pin)]);
  return (
    <div
      {...rows.hand}
      className="scrolls flex-1 min-h-0 flex flex-col gap-3 pr-1"
      role="region"
      aria-label="What it does"
      tabIndex={0}
    >
      <p
        className={`text-[16px] ${scene.refused ? "text-coral" : ""}`}
        role={scene.refused ? "alert" : undefined}
        data-testid="in-one-line"
      >
        {scene.says}
      </p>
      {scene.warns.length > 0 && (
        <ul aria-label="Warnings" className="flex flex-col gap-1">
          {scene.warns.map((warning) => (
            <li
              key={warning}
              className="flex items-center gap-2 rounded-lg border border-coral bg-blocked/50 px-3 py-1.5"
            >
              <span aria-hidden className="w-2.5 h-2.5 bg-coral rotate-45 shrink-0" />
              {warning}
            </li>
          ))}
        </ul>
      )}
      <div className="flex gap-3 items-start flex-wrap">
        {scene.on.length > 0 && (
          <Block title="Who is on" note={String(scene.on.length)}>
            {scene.on.map(([strip, who]) => (
              <li key={strip} className="py-0.5">
                {strip} <span className="text-iris">{who}</span>
              </li>
            ))}
          </Block>
        )}
        {scene.listeners.length > 0 && (
          <Block title="Who hears it" note={String(scene.listeners.length)}>
            {scene.listeners.map((one) => (
              <Listener key={one.listener} listener={one} />
            ))}
          </Block>
        )}
        {scene.changes.length > 0 && (
          <Block title="What changes" note={String(scene.changing)}>
            {scene.changes.map((one) => (
              <InRow key={keyOf(one)} of={keyOf(one)} rows={rows}>
                <li
                  data-row={keyOf(one)}
                  data-subject={one.strip}
                  className="flex items-center gap-2 py-0.5"
                >
                  <Strip strip={one.strip} name={one.whose} />
                  <span className="text-soft flex-1 min-w-0 truncate">{one.what}</span>
                  <span className="whitespace-nowrap">
                    <span className="text-faint">{one.was}</span> → {one.now}
                  </span>
                  {one.pin && <PinKey address={one.pin} of={`${one.whose}, ${one.what}`} />}
                </li>
              </InRow>
            ))}
            {scene.beneath > 0 && (
              <li className="text-faint">
                {scene.beneath} {scene.beneath === 1 ? "value changes" : "values change"} beneath
                fittings
              </li>
            )}
            {scene.changing > scene.changes.length && (
              <li className="text-faint">and {scene.changing - scene.changes.length} more</li>
            )}
          </Block>
        )}
        {scene.pinned.length > 0 && (
          <Block title="Held by pins" note={String(scene.pinned.length)}>
            {scene.pinned.map((one) => (
              <InRow key={one.pin} of={one.pin} rows={rows}>
                <li data-row={one.pin} className="flex items-center gap-2 py-0.5">
                  <span className="flex-1 min-w-0">
                    <bdi>{one.name}</bdi> <span className="text-soft">{one.what}</span>
                  </span>
                  <PinKey address={one.pin} of={one.says} />
                </li>
              </InRow>
            ))}
          </Block>
        )}
        {scene.left_out.length > 0 && (
          <Block title="Left out, or fitted" note={String(scene.left_out.length)}>
            {scene.left_out.map((one) => (
              <li key={`${one.name} ${one.what} ${one.why}`} className="py-0.5">
                {one.name} <span className="text-soft">{one.why}</span>
              </li>
            ))}
          </Block>
        )}
      </div>
    </div>
  );
}

function Block({
  title,
  note,
  children,
}: {
  title: string;
  note: string;
  children: React.ReactNode;
}) {
  return (
    <section
      aria-label={title}
      className="flex-1 min-w-72 phone:min-w-full rounded-xl border border-line bg-floor px-3 py-2"
    >
      <h2 className="text-soft pb-1">
        {title} <span className="text-faint">{note}</span>
      </h2>
      <ul>{children}</ul>
    </section>
  );
}

function Strip({ strip, name }: { strip: string; name: string }) {
  const tabIndex = useTabIndex();
  const path = stripPath(strip);
  if (!path) return <span>{name}</span>;
  return (
    <RouteLink to={path} dir="auto" tabIndex={tabIndex} className="in-text hover:underline">
      {name}
    </RouteLink>
  );
}

const HOW = [
  ["opens", "open"],
  ["falls_silent", "fall silent"],
  ["moves", "move"],
] as const;

/** One listener: in numbers, and the first of them by name. */
function Listener({ listener }: { listener: SceneListener }) {
  const words = HOW.filter(([how]) => listener[how] > 0)
    .map(([how, word]) => `${listener[how]} ${word}`)
    .join(", ");
  return (
    <li className="py-1" data-listener={listener.listener} data-subject={listener.listener}>
      <div className="flex items-baseline gap-2">
        <strong className="font-semibold">{listener.name}</strong>
        <span className="text-faint text-[13px]">{words}</span>
      </div>
      <ul className="pl-3 border-l border-line">
        {listener.cells.slice(0, 8).map((cell) => (
          <li
            key={cell.source}
            data-subject={`${cell.source} ${listener.listener}`}
            className="flex gap-2"
          >
            <span dir="auto" className="flex-1 min-w-0 truncate">
              {cell.name}
            </span>
            <span className="whitespace-nowrap">
              <span className="text-faint">{heard(cell.was_db)}</span> →{" "}
              <span className={cell.now_db === null ? "text-coral" : ""}>{heard(cell.now_db)}</span>
            </span>
          </li>
        ))}
        {listener.cells.length > 8 && (
          <li className="text-faint">and {listener.cells.length - 8} more</li>
        )}
      </ul>
    </li>
  );
}

const heard = (levelDb: number | null): string => (levelDb === null ? "silent" : cellText(levelDb));
