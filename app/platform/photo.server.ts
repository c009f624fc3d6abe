/** Photographs as they are sent: one never changes, so a browser may keep it. */
export function photoResponse({ mediaType, content }: { mediaType: string; content: Buffer }): Response {
  return new Response(new Uint8Array(content), { headers: { "Content-Type": mediaType, "Cache-Control": "private, max-age=86400, immutable", "X-Content-Type-Options": "nosniff" } });
}
