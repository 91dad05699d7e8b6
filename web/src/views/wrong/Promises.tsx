import { useShow } from "../../data/use";
import { Empty } from "../../ui/Panel";
import { InRow, useRows } from "../../ui/reach";
import { MinusForm } from "./MinusForm";
import { NewPromise } from "./NewPromise";
import { PromiseCard } from "./PromiseCard";

/** What must hold of who reaches whom, and whether it does, by every way there is. */
export function Promises() {
  const numbers = useShow((state) => state.promises);
  const rows = useRows(numbers.map((number) => `promise/${number}`));
  return (
    <>
      <NewPromise />
      <MinusForm />
      {numbers.length === 0 ? (
        <Empty title="Nothing promised yet">
          <p>
            Say what must hold, such as “31, 48 never reach house, matrix 2”. Ombrel looks at every
            way after each edit, and says who breaks it.
          </p>
        </Empty>
      ) : (
        <ul {...rows.hand} className="scrolls flex-1 min-h-0 flex flex-col gap-2 pr-1">
          {numbers.map((number) => (
            <InRow key={number} of={`promise/${number}`} rows={rows}>
              <PromiseCard promise={`promise/${number}`} />
            </InRow>
          ))}
        </ul>
      )}
    </>
  );
}
