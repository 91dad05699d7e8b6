import { beforeEach, expect, it } from "vitest";
import { moved, pretend } from "../testing/pretend";
import { store } from "./show";
import { follow, followTo } from "./subject";

const NOW = () => store.getState().selected;

beforeEach(() =>
  pretend({
    "line/1/place": 1,
    "line/1/name": "Kick",
    "line/1/socket": "input/local/3",
    "channel/7/source": "input/local/3",
    "channel/7/name": "Kick",
    "mix/2/format": "mono",
  }),
);

it("follows strips, buses, and lines and sockets to the channel that they feed", () => {
  follow("channel/7");
  expect(NOW()).toEqual({ source: "channel/7", listener: "house" });
  follow("mix/2");
  expect(NOW()).toEqual({ source: "channel/7", listener: "mix/2" });
  follow("channel/1", "house");
  expect(NOW()).toEqual({ source: "channel/1", listener: "house" });
  follow("line/1");
  expect(NOW()?.source).toBe("channel/7");
  follow("channel/1");
  follow("input/local/3");
  expect(NOW()?.source).toBe("channel/7");
});

it("stays where it is for what hears nothing and is heard by nobody", () => {
  follow("channel/7", "mix/2");
  const stood = NOW();
  for (const thing of ["dca/1", "scene/2", "part/3", "input/local/9", "line/4", ""]) follow(thing);
  expect(NOW()).toBe(stood);
});

it("follows a hand to the row that it is in, and the patch as it stands then", () => {
  const row = document.createElement("div");
  row.dataset.subject = "line/1 mix/2";
  const field = row.appendChild(document.createElement("input"));
  followTo(field);
  expect(NOW()).toEqual({ source: "channel/7", listener: "mix/2" });
  moved({ "channel/7/source": null, "channel/2/source": "input/local/3" });
  followTo(field);
  expect(NOW()?.source).toBe("channel/2");
  followTo(document.createElement("p"));
  expect(NOW()?.source).toBe("channel/2");
});
