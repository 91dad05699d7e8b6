import { act, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { store } from "../data/show";
import { OpenShowFile } from "./OpenShowFile";

/** What the server is asked, and what it answers when it does. */
const asked: { path: string; method: string; answer: (status: number, body: object) => void }[] =
  [];

beforeEach(() => {
  asked.length = 0;
  vi.useFakeTimers();
  vi.stubGlobal(
    "fetch",
    ({ url, method }: Request) =>
      new Promise((resolve) => {
        const { pathname, search } = new URL(url, "http://x");
        asked.push({
          path: `${pathname}${search}`,
          method,
          answer: (status, body) => resolve(new Response(JSON.stringify(body), { status })),
        });
      }),
  );
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it("tells how far a file is, stops it, and says why it came to nothing", async () => {
  render(<OpenShowFile />);
  const file = new File(["{}"], "evening.json");
  await act(async () =>
    fireEvent.change(screen.getByLabelText("Show file"), { target: { files: [file] } }),
  );
  const [sent] = asked;
  expect(sent).toMatchObject({ method: "POST" });
  const id = sent!.path.split("opening=")[1];
  expect(screen.getByRole("progressbar").textContent).toBe("sending the file…");
  await act(() => vi.advanceTimersByTimeAsync(400));
  expect(asked[1]!.path).toBe(`/api/shows/opening/${id}`);
  await act(async () => asked[1]!.answer(200, { doing: "checking", part: 0.6 }));
  expect(screen.getByRole("progressbar").getAttribute("aria-valuenow")).toBe("60");
  await act(async () => fireEvent.click(screen.getByText("Stop")));
  expect(asked.at(-1)).toMatchObject({ path: `/api/shows/opening/${id}`, method: "DELETE" });
  const message = "It was stopped. Open it again. Nothing was changed.";
  await act(async () => sent!.answer(422, { code: "bad_file", message }));
  expect(screen.queryByRole("progressbar")).toBeNull();
  expect(store.getState().notices.at(-1)?.text).toBe(message);
});
