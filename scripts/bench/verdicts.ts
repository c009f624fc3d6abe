/**
 * How calm the verdicts are: lives that do not wear, watched for five years, and how often a trend is "proved" on them; lives
 * that wear steadily, and how often a trend that was proved is lost again. tsx scripts/bench/verdicts.ts [lives] [seed]
 */
import { assess, defaultPrior, dynamicViscosity, random } from "@core";
import { fleetFluid, fleetReference } from "../../core/simulation/fleet";
import { oilTemperatureAt } from "../../core/simulation/life";
import { contextOf, pointOf, readingsOf } from "./origins";

const DAY = 86_400_000;
const START = Date.UTC(2019, 2, 1);
const YEARS = 5;
const EVERY_DAYS = 30;
const HOURS_PER_DAY = 12;
const lives = Number(process.argv[2] ?? 40);
const seed = Number(process.argv[3] ?? 900);
const muRef = dynamicViscosity(fleetFluid, fleetReference.temperature);

/** A life read every month; `wear` is what it gains over five years, as a share of the way to its limit. */
function lifeOf(wear: number, exponent: number, noise: number, key: string) {
  const rng = random(seed).fork(key);
  const count = Math.floor((YEARS * 365) / EVERY_DAYS);
  const readings = Array.from({ length: count }, (_, i) => {
    const at = START + i * EVERY_DAYS * DAY;
    const temperature = oilTemperatureAt(at, {}, rng);
    const pressure = 208 + 6 * rng.normal();
    const s = 1 + 3 * wear * (i / count);
    const value =
      1.2 *
      s *
      (pressure / fleetReference.pressure) *
      (dynamicViscosity(fleetFluid, temperature) / muRef) ** -exponent *
      Math.exp(noise * rng.normal());
    return { at, hours: i * EVERY_DAYS * HOURS_PER_DAY, value, pressure, temperature };
  });
  return {
    readings,
    asNew: 1.2,
    limit: 4.8,
    crossing: Infinity,
    hoursPerDay: HOURS_PER_DAY,
    exponents: { a: 1, b: exponent },
  };
}

/** After each reading: is a trend proved? */
function watched(life: ReturnType<typeof lifeOf>): boolean[] {
  return life.readings.map((r, i) =>
    i < 3 ? false : assess(readingsOf(life, i + 1), pointOf(life), contextOf(life, defaultPrior, r.at)).trend.proved,
  );
}

const say = (text: string) => process.stdout.write(`${text}\n`);
say(
  "| exponent of viscosity | noise | steady lives a year called drifting | at some time in 5 years | wearing lives: found | lost again, of those found |",
);
say("|---|---|---|---|---|---|");
for (const exponent of [0.7, 1, 1.3])
  for (const noise of [0.03, 0.08]) {
    let [years, ever, found, lost] = [0, 0, 0, 0];
    for (let i = 0; i < lives; i++) {
      const calm = watched(lifeOf(0, exponent, noise, `calm ${exponent} ${noise} ${i}`));
      const begun = calm.filter((p, k) => p && !calm[k - 1]).length;
      years += begun / YEARS;
      ever += Number(begun > 0);
      const worn = watched(lifeOf(0.8, exponent, noise, `worn ${exponent} ${noise} ${i}`));
      const first = worn.indexOf(true);
      found += Number(first >= 0);
      lost += Number(first >= 0 && worn.slice(first).includes(false));
    }
    const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
    say(
      `| ${exponent} | ${noise} | ${percent(years / lives)} | ${percent(ever / lives)} | ${percent(found / lives)} | ${percent(lost / Math.max(1, found))} |`,
    );
  }
