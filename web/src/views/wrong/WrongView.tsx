import { useLocation, useParams } from "wouter";
import { useShow } from "../../data/use";
import { useWrong } from "../../frame/places";
import { ViewHead } from "../../frame/ViewHead";
import { Tabs } from "../../ui/Tabs";
import { Findings } from "./Findings";
import { Promises } from "./Promises";

/** What is wrong: what Ombrel noticed, broken promises among it; and what is promised. */
export function WrongView() {
  const { part } = useParams<{ part?: string }>();
  const [, navigate] = useLocation();
  const wrong = useWrong();
  const notes = useShow((state) => state.findings.filter((one) => one.tone === "note").length);
  const promises = useShow((state) => state.promises.length);
  const broken = useShow((state) => state.judged.filter((one) => one.breaking > 0).length);
  const found =
    wrong === null
      ? "looking"
      : `${wrong} to mend${notes ? `, ${notes === 1 ? "1 note" : `${notes} notes`}` : ""}`;
  const kept =
    promises === 0
      ? "none"
      : broken > 0
        ? `${broken} broken`
        : promises === 1
          ? "kept"
          : "all kept";
  return (
    <>
      <ViewHead title="What is wrong">
        <Tabs
          label="Findings or promises"
          tabs={[
            { key: "findings", word: "Findings", note: found },
            { key: "promises", word: "Promises", note: kept },
          ]}
          chosen={part === "promises" ? "promises" : "findings"}
          onChoose={(key) => navigate(key === "promises" ? "/wrong/promises" : "/wrong")}
        />
      </ViewHead>
      {part === "promises" ? <Promises /> : <Findings />}
    </>
  );
}
