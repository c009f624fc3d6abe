/** Pictures for findings, drawn by code: none shows a real thing. */
import sharp from "sharp";
import { keepPhoto } from "~/platform/photoStore.server";

type Rng = { uniform(): number; between(low: number, high: number): number };
export type Motif = "flakes" | "scored" | "seal" | "element";

const [WIDTH, HEIGHT] = [800, 600];

const ground = (colour: string) => `<rect width="${WIDTH}" height="${HEIGHT}" fill="${colour}"/>`;

function flakes(rng: Rng): string {
  const piece = () => {
    const [x, y, r] = [rng.between(120, 680), rng.between(100, 500), rng.between(3, 22)];
    const corners = Array.from({ length: 5 }, (_, i) => {
      const a = (i / 5) * 2 * Math.PI;
      const d = r * rng.between(0.5, 1);
      return `${(x + d * Math.cos(a)).toFixed(1)},${(y + d * Math.sin(a)).toFixed(1)}`;
    });
    const light = Math.round(rng.between(150, 230));
    return `<polygon points="${corners.join(" ")}" fill="rgb(${light},${light},${light - 8})" stroke="#555"/>`;
  };
  return [
    ground("#3a342c"),
    `<ellipse cx="400" cy="300" rx="340" ry="240" fill="#4a4034"/>`,
    ...Array.from({ length: 40 }, piece),
  ].join("");
}

function scored(rng: Rng): string {
  const arcs = Array.from({ length: 16 }, () => {
    const r = rng.between(90, 215);
    const dash = `${rng.between(40, 220).toFixed(0)} ${rng.between(200, 900).toFixed(0)}`;
    const turn = rng.between(0, 360).toFixed(0);
    const width = rng.between(0.8, 3).toFixed(1);
    return (
      `<circle cx="400" cy="300" r="${r.toFixed(1)}" fill="none" stroke="#4b3a24" stroke-width="${width}" ` +
      `stroke-dasharray="${dash}" transform="rotate(${turn} 400 300)"/>`
    );
  });
  const ports = [0, 180].map(
    (a) =>
      `<path d="M 400 170 a 130 130 0 0 1 113 195" transform="rotate(${a} 400 300)" fill="none" ` +
      `stroke="#2b2b2b" stroke-width="34" stroke-linecap="round"/>`,
  );
  return [
    ground("#6f7d80"),
    `<circle cx="400" cy="300" r="230" fill="#b49a5e" stroke="#5b4a2a" stroke-width="4"/>`,
    `<circle cx="400" cy="300" r="62" fill="#3a3a3a"/>`,
    ...ports,
    ...arcs,
  ].join("");
}

function seal(rng: Rng): string {
  const at = rng.between(-6, 6);
  const ring = (colour: string, width: number) =>
    `<circle cx="400" cy="300" r="190" fill="none" stroke="${colour}" stroke-width="${width}"/>`;
  const cut = `<path d="M 590 270 l 26 18 l -40 14 z" fill="#cfc9b8" transform="rotate(${at.toFixed(0)} 400 300)"/>`;
  return [ground("#cfc9b8"), ring("#1d2424", 44), ring("#37413f", 12), cut].join("");
}

function element(rng: Rng): string {
  const pleats = Array.from({ length: 33 }, (_, i) => {
    const dirt = Math.round(rng.between(70, 150));
    return `<rect x="${60 + i * 21}" y="70" width="13" height="460" fill="rgb(${dirt + 30},${dirt + 18},${dirt - 20})"/>`;
  });
  const specks = Array.from(
    { length: 70 },
    () =>
      `<circle cx="${rng.between(60, 740).toFixed(0)}" cy="${rng.between(80, 520).toFixed(0)}" r="${rng.between(0.8, 3).toFixed(1)}" fill="#e8e8e0"/>`,
  );
  return [ground("#2b2620"), ...pleats, ...specks].join("");
}

const draw: Record<Motif, (rng: Rng) => string> = { flakes, scored, seal, element };

/** Draw a picture and keep it under an id. */
export async function keepDrawn(id: string, motif: Motif, rng: Rng): Promise<{ width: number; height: number }> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">${draw[motif](rng)}</svg>`;
  await keepPhoto(id, await sharp(Buffer.from(svg)).jpeg({ quality: 72 }).toBuffer());
  return { width: WIDTH, height: HEIGHT };
}
