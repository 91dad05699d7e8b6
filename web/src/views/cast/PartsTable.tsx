import { Link as RouteLink } from "wouter";
import { numberOf } from "../../data/address";
import type { Ask, Company, CompanyPart } from "../../data/types";
import { useBusOptions, useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Deliberate } from "../../ui/Deliberate";
import { OwnWord } from "../../ui/OwnWord";
import { InRow, useRows, useTabIndex } from "../../ui/reach";
import { TypedField } from "../../ui/TypedField";

interface Props {
  company: Company;
  onLook: (ask: Ask) => void;
}

/** Every part in a row: where it comes in, who is on tonight, who in each cast, who can. */
export function PartsTable({ company, onLook }: Props) {
  const rows = useRows(company.parts.map((one) => one.part));
  return (
    <div className="relative flex-1 min-h-0 scrolls" role="region" aria-label="Parts" tabIndex={0}>
      <table className="w-full border-separate border-spacing-y-1 max-lg:block">
        <thead className="text-soft text-left max-lg:hidden">
          <tr>
            <th className="font-normal px-2">
              <OwnWord word="Part" />
            </th>
            <th className="font-normal px-2">Channels</th>
            <th className="font-normal px-2">
              <OwnWord word="Tonight" />
            </th>
            {company.casts.map((cast) => (
              <th key={cast.cast} className="font-normal px-2">
                {cast.name}
              </th>
            ))}
            <th className="font-normal px-2">Can play it</th>
            <th className="font-normal px-2 sr-only">Remove</th>
          </tr>
        </thead>
        <tbody {...rows.hand} className="max-lg:flex max-lg:flex-col max-lg:gap-2">
          {company.parts.map((part, at) => (
            <InRow key={part.part} of={part.part} rows={rows}>
              <PartLine
                part={part}
                above={company.parts[at - 1]?.part ?? null}
                company={company}
                onLook={onLook}
              />
            </InRow>
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface LineProps extends Props {
  part: CompanyPart;
  /** The part one place up. */
  above: string | null;
}

function PartLine({ part, above, company, onLook }: LineProps) {
  const link = useLink();
  const tabIndex = useTabIndex();
  const mixes = useBusOptions("mix");
  const cell = "px-2 py-1.5 bg-floor max-lg:block max-lg:px-3 max-lg:py-1";
  const known = new Set(part.players.map((one) => one.performer));
  const rest = company.performers.filter((one) => !known.has(one.performer));
  const people = [
    ["", "vacant"] as const,
    ...part.players.map((one) => [one.performer, one.name] as const),
    ...rest.map((one) => [one.performer, `${one.name} (another part's)`] as const),
  ];
  const bare = part.players.filter((one) => !one.kept).map((one) => one.name);
  return (
    <tr
      data-row={part.part}
      data-part={part.part}
      data-subject={[...part.microphones.map((one) => one.channel), part.mix ?? ""].join(" ")}
      className="max-lg:flex max-lg:flex-wrap max-lg:items-center max-lg:rounded-xl max-lg:overflow-hidden max-lg:bg-floor"
    >
      <td className={`${cell} lg:rounded-l-lg`}>
        <TypedField
          label={`Name of ${part.name}`}
          value={part.name}
          className="font-semibold w-36"
          onCommit={(typed) => void link.type(`${part.part}/name`, typed)}
        />
      </td>
      <td className={cell}>
        <span className="flex items-center gap-2">
          <TypedField
            label={`Channels of ${part.name}`}
            value={part.microphones.map((one) => numberOf(one.channel)).join(", ")}
            placeholder="no channel"
            className={`${part.microphones.length > 1 ? "w-20" : part.microphones.length === 1 ? "w-12" : "w-24"} ${part.microphones.length === 0 ? "placeholder:text-coral" : ""}`}
            onCommit={(channels) =>
              void link.do({ action: "set_channels", part: part.part, channels }, { quiet: false })
            }
          />
          <span className="min-w-0">
            {part.microphones.map((one) => (
              <span key={one.number} className="flex items-center gap-1 min-w-28">
                <RouteLink
                  to={`/strip/${one.channel}`}
                  tabIndex={tabIndex}
                  dir="auto"
                  className="in-text hover:underline"
                >
                  {one.channel_name}
                </RouteLink>
                {part.microphones.length > 1 && (
                  <TypedField
                    label={`Microphone ${one.number} of ${part.name}`}
                    value={one.name}
                    placeholder="its name"
                    className="w-24 text-[13px] text-faint"
                    onCommit={(typed) =>
                      void link.type(`${part.part}/microphone/${one.number}/name`, typed)
                    }
                  />
                )}
              </span>
            ))}
          </span>
        </span>
        <span className="flex items-center gap-1 text-faint text-[13px] px-1.5">
          hears
          <Choice
            label={`Mix of ${part.name}`}
            className="h-8 coarse:h-11 max-w-40 text-faint"
            value={part.mix ?? ""}
            options={[["", "no mix"], ...mixes]}
            onChange={(mix) => void link.put(`${part.part}/mix`, mix || null)}
          />
        </span>
      </td>
      <td className={cell}>
        <span className="flex items-center gap-1.5">
          <span className="lg:hidden text-soft">Tonight</span>
          <Choice
            boxed
            label={`Tonight, ${part.name}`}
            className={`h-8 coarse:h-11 w-40 max-lg:w-auto ${part.tonight ? "" : "text-coral"}`}
            value={part.tonight?.performer ?? ""}
            options={people}
            onChange={(performer) =>
              onLook({ action: "late_change", part: part.part, performer: performer || null })
            }
          />
          {part.late && <span className="text-sun-text text-[13px]">late</span>}
        </span>
      </td>
      {company.casts.map((cast, at) => (
        <td key={cast.cast} className={cell}>
          <span className="lg:hidden text-soft">{cast.name}: </span>
          <Choice
            label={`${cast.name}, ${part.name}`}
            className="h-8 coarse:h-11 w-32 max-lg:w-auto text-soft"
            value={part.plays[at]?.performer ?? ""}
            options={people}
            onChange={(value) => void link.put(`${cast.cast}/${part.part}`, value || null)}
          />
        </td>
      ))}
      <td className={cell}>
        <span className="lg:hidden text-soft">Can play it: </span>
        <TypedField
          label={`Who can play ${part.name}`}
          value={part.players
            .map(({ name }) => (name.includes(",") ? `"${name}"` : name))
            .join(", ")}
          placeholder="names, understudies last"
          className="w-full min-w-44 max-lg:w-72"
          onCommit={(players) => void link.do({ action: "set_players", part: part.part, players })}
        />
        {bare.length > 0 && part.microphones.length > 0 && (
          <span className="block px-1.5 text-[13px] text-sun-text">
            nothing kept yet: <bdi>{bare.join(", ")}</bdi>
          </span>
        )}
      </td>
      <td className={`${cell} lg:rounded-r-lg text-right max-lg:ml-auto`}>
        <Button
          small
          tone="quiet"
          aria-label={`${part.name} one place up`}
          title="One place up in the list"
          disabled={above === null}
          onClick={() =>
            void link.do({ action: "move_part", part: part.part, before: above }, { quiet: false })
          }
        >
          ↑
        </Button>
        <Deliberate
          says={`Remove ${part.name}`}
          short="✕"
          onDone={() => void link.do({ action: "remove_part", part: part.part }, { quiet: false })}
        />
      </td>
    </tr>
  );
}
