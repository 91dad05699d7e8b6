import { useShow } from "../../data/use";
import { Empty } from "../../ui/Panel";
import { MinusForm } from "./MinusForm";
import { NewPromise } from "./NewPromise";
import { PromiseCard } from "./PromiseCard";

/** What must hold of who reaches whom, and whether it does, by every way there is. */
export function Promises() {
  const numbers = useShow((state) => state.promises);
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
        <ul className="scrolls flex-1 min-h-0 flex flex-col gap-2 pr-1">
          {numbers.map((number) => (
            <PromiseCard key={number} promise={`promise/${number}`} />
          ))}
        </ul>
      )}
    </>
  );
}
