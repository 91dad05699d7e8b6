import { Link as RouteLink } from "wouter";
import type { Ask, Company, CompanyPart } from "../../data/types";
import { useLink } from "../../data/use";
import { Choice } from "../../ui/Choice";
import { Deliberate } from "../../ui/Deliberate";
import { TypedField } from "../../ui/TypedField";

interface Props {
  company: Company;
  onLook: (ask: Ask) => void;
}

/** Every part in a row: where it comes in, who is on tonight, who in each cast, who can. */
export function PartsTable({ company, onLook }: Props) {
  return (
    <div className="relative flex-1 min-h-0 scrolls" role="region" aria-label="Parts" tabIndex={0}>
      <table className="w-full border-separate border-spacing-y-1 max-md:block">
        <thead className="text-soft text-left max-md:hidden">
          <tr>
            <th className="font-normal px-2">Part</th>
            <th className="font-normal px-2">Channels</th>
            <th className="font-normal px-2">Tonight</th>
            {company.casts.map((cast) => (
              <th key={cast.cast} className="font-normal px-2">
                {cast.name}
              </th>
            ))}
            <th className="font-normal px-2">Can play it</th>
            <th className="font-normal px-2 sr-only">Remove</th>
          </tr>
        </thead>
        <tbody className="max-md:flex max-md:flex-col max-md:gap-2">
          {company.parts.map((part) => (
            <PartLine key={part.part} part={part} company={company} onLook={onLook} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function PartLine({ part, company, onLook }: Props & { part: CompanyPart }) {
  const link = useLink();
  const cell = "px-2 py-1.5 bg-floor max-md:block max-md:px-3 max-md:py-1";
  const known = new Set(part.players.map((one) => one.performer));
  const rest = company.performers.filter((one) => !known.has(one.performer));
  const people = [
    ["", "vacant"] as const,
    ...part.players.map((one) => [one.performer, one.name] as const),
    ...rest.map((one) => [one.performer, `${one.name} (another part's)`] as const),
  ];
  const bare = part.players.filter((one) => !one.kept).map((one) => one.name);
  return (
    <tr data-part={part.part} className="max-md:block max-md:rounded-xl max-md:overflow-hidden">
      <td className={`${cell} md:rounded-l-lg`}>
        <TypedField
          label={`Name of ${part.name}`}
          value={part.name}
          className="font-semibold w-36 max-md:w-full"
          onCommit={(typed) =>
            void link.do({ action: "moves", moves: [{ address: `${part.part}/name`, typed }] })
          }
        />
      </td>
      <td className={cell}>
        {part.microphones.map((one) => (
          <RouteLink
            key={one.number}
            to={`/strip/${one.channel}`}
            className="in-text hover:underline block min-w-36"
          >
            {one.channel.split("/")[1]} {one.channel_name}
          </RouteLink>
        ))}
        {part.microphones.length === 0 && <span className="text-coral">no channel</span>}
        {part.mix_name && (
          <span className="block text-faint text-[13px]">hears {part.mix_name}</span>
        )}
      </td>
      <td className={cell}>
        <span className="flex items-center gap-1.5">
          <Choice
            boxed
            label={`Tonight, ${part.name}`}
            className={`h-8 coarse:h-11 w-40 max-md:w-auto ${part.tonight ? "" : "text-coral"}`}
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
          <span className="md:hidden text-soft">{cast.name}: </span>
          <Choice
            label={`${cast.name}, ${part.name}`}
            className="h-8 coarse:h-11 w-32 max-md:w-auto text-soft"
            value={part.plays[at]?.performer ?? ""}
            options={people}
            onChange={(value) =>
              void link.do({
                action: "moves",
                moves: [{ address: `${cast.cast}/${part.part}`, value: value || null }],
              })
            }
          />
        </td>
      ))}
      <td className={cell}>
        <TypedField
          label={`Who can play ${part.name}`}
          value={part.players.map((one) => one.name).join(", ")}
          placeholder="names, understudies last"
          className="w-full min-w-44"
          onCommit={(players) => void link.do({ action: "set_players", part: part.part, players })}
        />
        {bare.length > 0 && part.microphones.length > 0 && (
          <span className="block px-1.5 text-[13px] text-sun-text">
            nothing kept yet: {bare.join(", ")}
          </span>
        )}
      </td>
      <td className={`${cell} md:rounded-r-lg text-right`}>
        <Deliberate
          says={`Remove ${part.name}`}
          short="✕"
          onDone={() => void link.do({ action: "remove_part", part: part.part }, { quiet: false })}
        />
      </td>
    </tr>
  );
}
