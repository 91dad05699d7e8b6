import { act, render, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { received, type ShowState, store } from "../data/show";
import { DESK, inPage, moved, pretend } from "../testing/pretend";
import { Free } from "./Free";
import { TopBar } from "./TopBar";

const bar = () =>
  render(
    inPage(<TopBar onFind={() => {}} onQuiet={() => {}} onKeys={() => {}} onNotices={() => {}} />),
  );
const pill = () => document.querySelector<HTMLElement>("[data-status]")!;
const is = (state: Partial<ShowState>) => act(() => store.setState(state));

beforeEach(() => pretend({ "show/name": "The Salt Road" }));

it("says whether what is done here is kept", () => {
  bar();
  expect(pill().textContent).toBe("saved");
  is({ waiting: 2 });
  expect(pill().textContent).toBe("saving, 2 waiting");
  is({ status: "lost" });
  expect(pill().textContent).toBe("offline, 2 waiting");
  is({ status: "live", trouble: "The show's store does not answer." });
  expect(pill().textContent).toBe("store away, 2 waiting");
  expect(pill().title).toBe("The show's store does not answer.");
});

it("is not there before the show is", () => {
  is({ revision: null });
  bar();
  expect(pill().textContent).toBe("connecting");
  act(() => received({ type: "snapshot", revision: 1, values: {} }));
  expect(pill().textContent).toBe("saved");
});

it("says who else is here, and where", () => {
  bar();
  expect(screen.queryByTestId("others")).toBeNull();
  const views = ["lines", "miccheck", "run", "mine"];
  const others = views.map((view, at) => ({ screen: `s${at}`, name: `P${at}`, view }));
  act(() => received({ type: "present", you: "s3", others, more: 0 }));
  expect(screen.getByTestId("others").textContent).toBe(
    "Also here: P0 in Lines, P1 in Mic check and 1 more",
  );
});

it("says what the desk still has free where it is spent, and loudly when nothing is left", () => {
  pretend({ "mix/1/format": "mono", "mix/2/format": "stereo" });
  const mixes = DESK.mixes;
  const page = render(inPage(<Free of={["mixes", "outputs"]} />));
  const free = () => screen.getByRole("group", { name: "Free on this desk" }).textContent;
  expect(free()).toContain(`${mixes - 2} mixes free`);
  const all = Array.from({ length: mixes }, (_, n) => [`mix/${n + 1}/format`, "mono"] as const);
  moved(Object.fromEntries(all.slice(0, -1)));
  expect(free()).toContain("1 mix free");
  moved(Object.fromEntries(all));
  expect(free()).toContain("no mixes free");
  page.unmount();
});
