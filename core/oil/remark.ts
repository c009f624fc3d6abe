/** What a laboratory's remark says in words: a short list of those that mean something to a fitter. */

export type RemarkMeaning = "freeWater" | "dirt" | "burnt" | "metal";

/** Words by what they mean, in English and as laboratories of the neighbours write them (common practice). */
const words: readonly (readonly [RemarkMeaning, RegExp])[] = [
  [
    "freeWater",
    new RegExp(
      "free water|water (?:is )?visible|visible water|milky|cloudy|emulsi|turbid|" +
        "freies wasser|milchig|trüb|eau libre|laiteux|fritt vatten|vapaata vettä|maitomai",
      "i",
    ),
  ],
  ["dirt", /coarse|sludge|sediment|varnish|grob|schlamm|boue|dépôt|\bslam\b/i],
  ["burnt", /burnt|burned|smells? burn|overheated|oxidi[sz]ed|verbrannt|brûlé|bränd/i],
  ["metal", /metal(?:lic)? (?:flakes|chips|particles|debris)|brass flakes|bronze flakes|swarf|späne|copeaux|spån/i],
];
/** What takes a word back where it stands shortly before it: "no free water seen". */
const NOT = /\b(?:no|not|without|none|nil|kein(?:e|em|es)?|ohne|pas d['e]|sans|ingen|inget|ej|ei)\b[\w\s']{0,16}$/i;

/**
 * What a remark says of the oil.
 * @param text as the laboratory or the person wrote it
 * @returns each meaning once, in the order of the list; empty: nothing that is known
 * @example remarkSays("Free water seen") // ["freeWater"]
 * @example remarkSays("No free water. Slightly burnt smell") // ["burnt"]
 */
export function remarkSays(text: string): RemarkMeaning[] {
  return words.flatMap(([meaning, pattern]) => {
    const found = pattern.exec(text);
    return found && !NOT.test(text.slice(0, found.index)) ? [meaning] : [];
  });
}
