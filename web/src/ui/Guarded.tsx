import { Component, type ReactNode } from "react";
import { store } from "../data/show";
import { Button } from "./Button";

interface Props {
  /** What stands here, in words. */
  what: string;
  children: ReactNode;
}

/** What goes wrong in here stays in here: the rest of the page stands, and nothing of the show is lost. */
export class Guarded extends Component<Props, { fault: string | null }> {
  override state = { fault: null as string | null };

  static getDerivedStateFromError(error: unknown) {
    return { fault: error instanceof Error ? error.message : String(error) };
  }

  #listening: (() => void) | undefined;

  /** What could not be drawn of one state of the show may be drawn of the next. */
  override componentDidCatch() {
    const at = store.getState().revision;
    this.#listening?.();
    this.#listening = store.subscribe((state) => {
      if (state.revision !== at) this.#again();
    });
  }

  override componentWillUnmount() {
    this.#listening?.();
  }

  #again = () => {
    this.#listening?.();
    this.#listening = undefined;
    this.setState({ fault: null });
  };

  override render() {
    if (this.state.fault === null) return this.props.children;
    return (
      <div role="alert" className="m-4 max-w-[60ch] flex flex-col items-start gap-2">
        <p className="text-coral font-semibold">{this.props.what} could not be drawn.</p>
        <p className="text-soft">
          The show is as it was, and the other views stand. What went wrong: {this.state.fault}
        </p>
        <Button onClick={this.#again}>Draw it again</Button>
      </div>
    );
  }
}
