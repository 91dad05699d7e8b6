import { expect, it } from "vitest";
import { levelAddress, pageOf, panAddress, stripOfPage, switchAddress } from "./addresses";

it("rides a send into a mix or matrix, and the strip's own fader where it is assigned", () => {
  expect(levelAddress("channel/3", "mix/2")).toBe("channel/3/send/mix/2/level");
  expect(levelAddress("house", "matrix/1")).toBe("house/send/matrix/1/level");
  expect(levelAddress("return/1", "house")).toBe("return/1/fader");
  expect(switchAddress("channel/3", "group/2")).toBe("channel/3/group/2/on");
  expect(switchAddress("channel/3", "mono")).toBe("channel/3/mono/on");
  expect(panAddress("group/1", "house")).toBe("group/1/pan");
});

it("goes from a strip to its page and back", () => {
  for (const strip of ["house", "mono", "mix/7", "group/2", "matrix/10", "return/3"])
    expect(stripOfPage(pageOf(strip))).toBe(strip);
  expect(stripOfPage("engine-1")).toBeNull();
});
