import { expect, it } from "vitest";
import { type InUse, inUseAfter, NOTHING_IN_USE } from "./inUse";
import type { Value } from "./types";

/** Plain numbers that follow from a seed (a linear congruence), so that each run is the same. */
function drawing(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (state * 48271) % 2147483647;
    return state % below;
  };
}

it.each([1, 2, 3, 4, 5])("followed move by move equals read as a whole (seed %i)", (seed) => {
  const draw = drawing(seed);
  const values = new Map<string, Value>();
  let followed: InUse = NOTHING_IN_USE;
  const one: (() => [string, Value])[] = [
    () => [`line/${1 + draw(9)}/place`, draw(4)],
    () => [
      `channel/${1 + draw(9)}/${["source", "spare", "name"][draw(3)]}`,
      draw(2) ? "input/a/1" : null,
    ],
    () => [`channel/${1 + draw(9)}/on_spare`, draw(2) === 1],
    () => [`return/${1 + draw(4)}/name`, draw(2) ? "Hall" : ""],
    () => [
      `${["mix", "group", "matrix"][draw(3)]}/${1 + draw(9)}/format`,
      ["unused", "mono", "stereo"][draw(3)]!,
    ],
    () => [`output/a/${1 + draw(9)}/source`, draw(2) ? "mix/1" : null],
    () => [`channel/${1 + draw(9)}/fader`, -draw(60)],
    () => [`channel/${1 + draw(9)}/dca/${1 + draw(4)}/on`, draw(2) === 1],
    () => [`dca/${1 + draw(4)}/dca/${1 + draw(4)}/on`, draw(2) === 1],
    () => [`mix/${1 + draw(4)}/mute_group/${1 + draw(4)}/on`, draw(2) === 1],
    () => [`channel/${1 + draw(9)}/gang/${1 + draw(4)}/on`, draw(2) === 1],
    () => [`${["dca", "channel"][draw(2)]}/${1 + draw(9)}/solo`, draw(2) === 1],
    () => [`channel/${1 + 2 * draw(4)}/linked`, draw(2) === 1],
    () => [
      `${["dca", "mute_group", "gang", "bank"][draw(4)]}/${1 + draw(9)}/name`,
      draw(2) ? "x" : "",
    ],
    () => [`bank/${1 + draw(9)}/1/${1 + draw(3)}`, draw(2) ? "house" : null],
  ];
  for (let step = 0; step < 300; step++) {
    const moved = Array.from({ length: 1 + draw(3) }, () => one[draw(one.length)]!());
    for (const [address, value] of moved) values.set(address, value);
    followed = {
      ...followed,
      ...inUseAfter(
        values,
        followed,
        moved.map(([address]) => address),
      ),
    };
    // what is read as a whole goes by the plain meaning of each list
    const numbers = (kind: string, used: (n: number) => unknown) =>
      [1, 2, 3, 4, 5, 6, 7, 8, 9].filter((n) => used(n)).map((n) => `${kind} ${n}`);
    const strip = (kind: string) =>
      numbers(kind, (n) =>
        ["source", "spare", "name"].some((leaf) => values.get(`${kind}/${n}/${leaf}`)),
      );
    const bus = (kind: string) =>
      numbers(
        kind,
        (n) => !["unused", undefined].includes(values.get(`${kind}/${n}/format`) as string),
      );
    expect(followed.channels.map((n) => `channel ${n}`)).toEqual(strip("channel"));
    expect(followed.returns.map((n) => `return ${n}`)).toEqual(strip("return"));
    expect(followed.mixes.map((n) => `mix ${n}`)).toEqual(bus("mix"));
    expect(followed.groups.map((n) => `group ${n}`)).toEqual(bus("group"));
    expect(followed.matrices.map((n) => `matrix ${n}`)).toEqual(bus("matrix"));
    expect([...followed.outputs].sort()).toEqual(
      numbers("output", (n) => values.get(`output/a/${n}/source`)).map((name) =>
        name.replace(" ", "/a/"),
      ),
    );
    expect(followed.fed_by.get("input/a/1")?.map((n) => `channel ${n}`) ?? []).toEqual(
      numbers("channel", (n) =>
        values.get(`channel/${n}/${values.get(`channel/${n}/on_spare`) ? "spare" : "source"}`),
      ),
    );
    const held = [...values].filter(
      ([at, on]) => on === true && /\/(dca|mute_group|gang)\//.test(at),
    );
    const memberships = [...followed.members]
      .flatMap(([ruler, members]) => [...members].map((member) => `${member}/${ruler}/on`))
      .sort();
    expect(memberships).toEqual(held.map(([address]) => address).sort());
    for (const [kind, list] of [
      ["dca", followed.dcas],
      ["mute_group", followed.mute_groups],
      ["gang", followed.gangs],
    ] as const)
      expect(list.map((n) => `${kind} ${n}`)).toEqual(
        numbers(
          kind,
          (n) =>
            values.get(`${kind}/${n}/name`) ||
            held.some(([address]) => address.endsWith(`/${kind}/${n}/on`)),
        ),
      );
    expect([...followed.soloed].sort()).toEqual(
      [...values]
        .filter(([address, on]) => on === true && address.endsWith("/solo"))
        .map(([address]) => address.replace("/solo", ""))
        .sort(),
    );
    expect([...followed.pairs.values()].sort()).toEqual(
      numbers("channel", (n) => values.get(`channel/${n}/linked`) === true).map((name) =>
        name.replace(" ", "/"),
      ),
    );
    expect(followed.banks.map((n) => `bank ${n}`)).toEqual(
      numbers("bank", (n) =>
        [...values].some(([address, value]) => value && address.startsWith(`bank/${n}/`)),
      ),
    );
    const places = followed.lines.map((n) => values.get(`line/${n}/place`) as number);
    expect([...places].sort((a, b) => a - b)).toEqual(places);
    expect(followed.lines.length).toBe(
      numbers("line", (n) => values.get(`line/${n}/place`)).length,
    );
  }
});

it("keeps a list as it is when nothing in it came or went", () => {
  const values = new Map<string, Value>([["channel/1/name", "Kick"]]);
  const first = { ...NOTHING_IN_USE, ...inUseAfter(values, NOTHING_IN_USE, values.keys()) };
  values.set("channel/1/name", "Kick In");
  const second = inUseAfter(values, first, ["channel/1/name"]);
  expect(second).toEqual({ patched: first.patched + 1 });
});
