/** What fields show: the file that is named has [address, value] pairs as JSON; their texts are said. For test_shown.py. */
import { readFileSync } from "node:fs";
import { Catalogue } from "../web/src/data/catalogue";
import type { Desk, Value } from "../web/src/data/types";
import { optionText, valueText } from "../web/src/data/words";

const desk = JSON.parse(readFileSync("src/data/generated/desk.json", "utf8")) as Desk;
const catalogue = new Catalogue(desk);
const pairs = JSON.parse(readFileSync(process.argv.at(-1)!, "utf8")) as [string, Value][];
const texts = pairs.map(([address, value]) => {
  const parameter = catalogue.at(address);
  return parameter.kind === "choice" ? optionText(String(value)) : valueText(parameter, value);
});
process.stdout.write(JSON.stringify(texts));
