import { useEffect } from "react";

/** The screen stays on, where the browser can: only over TLS. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    const ask = () => {
      if (document.visibilityState === "visible")
        void navigator.wakeLock?.request("screen").then(
          (got) => {
            lock = got;
          },
          () => undefined,
        );
    };
    ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, []);
}
