/** The theme's tones as a canvas can use them. */

const names = [
  "ink",
  "ink-2",
  "line",
  "line-2",
  "sea",
  "sea-soft",
  "ochre",
  "verm",
  "verm-soft",
  "sheet",
  "paper",
] as const;
export type Tone = (typeof names)[number];

/** Tones resolved for the present theme: light-dark() is worked out by a probe element. */
export function readTones(): Record<Tone, string> {
  const probe = document.createElement("i");
  document.body.append(probe);
  const tones = Object.fromEntries(
    names.map((name) => {
      probe.style.color = `var(--${name})`;
      return [name, getComputedStyle(probe).color];
    }),
  ) as Record<Tone, string>;
  probe.remove();
  return tones;
}

/** A tone with an opacity. */
export function faded(tone: string, opacity: number): string {
  return tone.replace(/^rgb\((.*)\)$/, `rgba($1, ${opacity})`);
}
