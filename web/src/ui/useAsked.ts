import { useEffect, useEffectEvent } from "react";
import { useLocation, useSearch } from "wouter";

/**
 * What the address asks for once, as `?bank=4`: taken out of it, so that the same can be asked for again.
 * `isThere`: whether it can be done by now, since a show may come after its address.
 */
export function useAsked(
  name: string,
  isThere: (value: string) => boolean,
  take: (value: string) => void,
): void {
  const search = useSearch();
  const [path, navigate] = useLocation();
  const value = new URLSearchParams(search).get(name);
  const there = value !== null && isThere(value);
  const taken = useEffectEvent((asked: string) => {
    const rest = new URLSearchParams(search);
    rest.delete(name);
    navigate(rest.size > 0 ? `${path}?${rest}` : path, { replace: true });
    take(asked);
  });
  useEffect(() => {
    if (value !== null && there) taken(value);
  }, [value, there]);
}
