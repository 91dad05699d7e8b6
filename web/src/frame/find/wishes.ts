/** What was wished before, the newest first: of this browser. */
const KEPT = "wishes";
const MOST = 5;

export function wishesBefore(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT) ?? "[]");
    return Array.isArray(kept) ? kept.filter((one) => typeof one === "string") : [];
  } catch {
    return [];
  }
}

export function keepWish(text: string): void {
  const wish = text.trim();
  const kept = [wish, ...wishesBefore().filter((one) => one !== wish)].slice(0, MOST);
  localStorage.setItem(KEPT, JSON.stringify(kept));
}
