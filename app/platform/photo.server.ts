/** Photographs as they are sent. A tablet passes from hand to hand: its browser keeps none, as it keeps no page. */
export function photoResponse({ mediaType, content }: { mediaType: string; content: Buffer }): Response {
  return new Response(new Uint8Array(content), { headers: { "Content-Type": mediaType } });
}

const starts: [type: string, bytes: readonly number[], at?: number][] = [
  ["image/jpeg", [0xff, 0xd8, 0xff]],
  ["image/png", [0x89, 0x50, 0x4e, 0x47]],
  ["image/webp", [0x57, 0x45, 0x42, 0x50], 8],
];

/** What a picture is by its own first bytes, whatever it was called; undefined: none that is kept. */
export function imageType(content: Uint8Array): string | undefined {
  return starts.find(([, bytes, at = 0]) => bytes.every((b, i) => content[at + i] === b))?.[0];
}
