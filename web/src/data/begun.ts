/** What was given when a show was made and waits for its lines: its list, and who wears ears. */
export interface Begun {
  /** The list that was brought, by its id. */
  list: string | null;
  /** Names of the ears, and the channels that go into them, as typed. */
  ears: string;
  channels: string;
  /** Why the list could not be read. */
  fault: string;
}

const key = (show: string) => `begun ${show}`;

export function begin(show: string, begun: Begun): void {
  if (begun.list || begun.fault || begun.ears.trim())
    sessionStorage.setItem(key(show), JSON.stringify(begun));
}

export function begunOf(show: string): Begun | null {
  const text = sessionStorage.getItem(key(show));
  return text ? (JSON.parse(text) as Begun) : null;
}

export const ended = (show: string): void => sessionStorage.removeItem(key(show));
