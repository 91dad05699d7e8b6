/** The addresses that a row of a bus's feeds moves. An assignment rides the strip's own fader. */
import { isOf, kindOf, numberOf, stripKind } from "../../data/address";

/** Whether a bus takes its strips by assignments rather than by sends. */
export const isAssigned = (bus: string): boolean => isOf(bus, "house", "mono", "group");

export const levelAddress = (strip: string, bus: string): string =>
  isAssigned(bus) ? `${strip}/fader` : `${strip}/send/${bus}/level`;

export const switchAddress = (strip: string, bus: string): string =>
  isAssigned(bus) ? `${strip}/${bus}/on` : `${strip}/send/${bus}/on`;

export const panAddress = (strip: string, bus: string): string =>
  isAssigned(bus) ? `${strip}/pan` : `${strip}/send/${bus}/pan`;

/** The last part of a strip's page address: mixes by their number, others by kind and number. */
export function pageOf(strip: string): string {
  if (isOf(strip, "mix")) return `${numberOf(strip)}`;
  return stripKind(strip)?.alone ? strip : `${kindOf(strip)}-${numberOf(strip)}`;
}

/** The strip of a page, or null for none that there can be. */
export function stripOfPage(page: string): string | null {
  if (page === "house" || page === "mono") return page;
  if (/^\d+$/.test(page)) return `mix/${page}`;
  return /^(group|matrix|return)-\d+$/.test(page) ? page.replace("-", "/") : null;
}
