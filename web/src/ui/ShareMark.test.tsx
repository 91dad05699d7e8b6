import { render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { inPage, pretend } from "../testing/pretend";
import { ShareMark } from "./ShareMark";

it("marks who shares gain, and leaves returns, which cannot, as they are", () => {
  pretend({ "channel/1/sharing/group": "sharing/1", "sharing/1/name": "Panel" });
  render(
    inPage(
      <>
        <ShareMark strip="channel/1" />
        <ShareMark strip="channel/2" />
        <ShareMark strip="return/1" />
      </>,
    ),
  );
  expect(screen.getAllByRole("img")).toHaveLength(1);
  expect(screen.getByTitle("shares gain in Panel: told as if it spoke alone")).toBeTruthy();
});
