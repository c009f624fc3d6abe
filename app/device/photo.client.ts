/** A photograph made small enough to keep on the tablet and to send. */
const LONGEST_SIDE = 1400;
const QUALITY = 0.8;

/** The picture as base64 JPEG, its longest side at most 1400 pixels. */
export async function smallPhoto(file: Blob): Promise<{ mediaType: string; base64: string }> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext("2d")!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  const url = canvas.toDataURL("image/jpeg", QUALITY);
  return { mediaType: "image/jpeg", base64: url.slice(url.indexOf(",") + 1) };
}
