/** What a phone is told and sends, by the description of the wire. */
import type { components } from "../data/generated/api";

type Schemas = components["schemas"];

export type PhoneMixes = Schemas["PhoneMixes"];
export type PhoneMix = Schemas["PhoneMixRow"];
export type PhoneFamily = Schemas["PhoneFamilyRow"];
export type PhoneStrip = Schemas["PhoneStrip"];
export type FromPhone = Schemas["FromPhone"];
export type PhoneDo = Schemas["PhoneDo"];
export type PhoneAsk = PhoneDo["ask"];
export type FromDesk =
  | PhoneMixes
  | { type: "done"; id: string; revision: number; says: string }
  | { type: "refused"; id: string | null; code: string; message: string }
  | { type: "kept"; ids: string[] }
  | { type: "called"; id: string; text: string; seen: boolean; by: string }
  | { type: "finger"; mix: string; of: string; who: string }
  | { type: "pong" };
