import { beforeEach, expect, it } from "vitest";
import { pretend } from "../testing/pretend";
import { store } from "./show";
import { listedName } from "./use";

beforeEach(() => pretend({ "mix/3/format": "stereo", "mix/3/name": "Ears fiddle" }));

it("lists a strip by its name and number, and what has no name of its own as it is called", () => {
  const listed = (strip: string) => listedName(store.getState(), strip);
  expect(listed("mix/3")).toBe("Ears fiddle · mix 3");
  expect(listed("mix/4")).toBe("Mix 4");
  expect([listed("house"), listed("mono")]).toEqual(["House", "Mono"]);
});
