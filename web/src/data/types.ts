/** Names for the generated types, so that no other file spells out their path. */
import type { components } from "./generated/api";

type Schemas = components["schemas"];

export type Desk = Schemas["DeskReply"];
export type Me = Schemas["Me"];
export type ListReply = Schemas["ListReply"];
export type ListChoices = Schemas["ListChoices"];
export type ListRole = Schemas["ColumnRole"]["role"];
export type PdfJob = Schemas["JobReply"];
export type TakenReply = Schemas["TakenReply"];
export type Sheet = Schemas["SheetReply"];
export type ShowCard = Schemas["ShowCard"];
export type History = Schemas["HistoryReply"];
export type PastGesture = Schemas["GestureReply"];
export type Point = Schemas["PointReply"];
export type Compared = Schemas["ComparedReply"];
export type Sample = Schemas["Sample"];
export type Parameter = Schemas["ParameterReply"];
export type FromScreen = Schemas["FromScreen"];
export type ToScreen = Schemas["ToScreen"];
export type Ask = Schemas["Do"]["ask"];
export type Move = Schemas["AskedMove"];
export type Table = Schemas["Table"];
export type TableCell = Schemas["TableCell"];
export type CellState = TableCell["state"];
export type CellWay = TableCell["way"];
export type TableHead = Schemas["TableHead"];
export type StripPath = Extract<ToScreen, { type: "strip" }>;
export type Lift = Schemas["LiftMessage"];
export type Singer = Schemas["SingerMessage"];
export type Crossover = Schemas["CrossoverMessage"];
export type Curves = Extract<ToScreen, { type: "curves" }>;
export type Why = Schemas["WhyAnswer"];
export type Remedy = Schemas["WhyRemedy"];
export type Finding = Schemas["FindingMessage"];
export type Judged = Schemas["PromiseMessage"];
export type Breach = Schemas["BreachMessage"];
export type Preamp = Schemas["PreampMessage"];
export type Loudest = Schemas["Loudest"];
export type PersonHere = Schemas["PersonHere"];
export type Meters = Schemas["Meters"];
export type Ruled = Schemas["RuledStrip"];
export type Reach = Schemas["ReachMessage"];
export type Preview = Schemas["Preview"];
/** A value on the wire; null is silence for a level, and nothing for a reference. */
export type Value = string | number | boolean | null;
