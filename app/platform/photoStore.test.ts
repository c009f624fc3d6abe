import { mkdtemp, readdir, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp from "sharp";
import { inFolder, LARGEST_PHOTO, makePhoto } from "./photoStore.server";

const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#a05030" } });

test("a picture is made anew: upright, without the place where it was taken", async () => {
  const sideways = await picture(400, 200)
    .jpeg()
    .withExif({ IFD0: { Artist: "Somebody" }, IFD3: { GPSLatitude: "51/1 30/1 0/1", GPSLatitudeRef: "N" } })
    .withMetadata({ orientation: 6 })
    .toBuffer();
  expect((await sharp(sideways).metadata()).orientation).toBe(6);
  const made = (await makePhoto(sideways))!;
  expect(made).toMatchObject({ width: 200, height: 400 });
  const after = await sharp(made.content).metadata();
  expect(after.format).toBe("jpeg");
  expect(after.exif).toBeUndefined();
  expect(after.orientation).toBeUndefined();
});

test("a large one is made smaller, a PNG with holes gets a ground, a small one stays as it is", async () => {
  expect(await makePhoto(await picture(3000, 1500).png().toBuffer())).toMatchObject({ width: 1600, height: 800 });
  expect(await makePhoto(await picture(20, 10).webp().toBuffer())).toMatchObject({ width: 20, height: 10 });
});

test.each([
  ["nothing", Buffer.alloc(0)],
  ["a program", Buffer.from("#!/bin/sh\necho hello")],
  ["a page that calls itself a picture", Buffer.from("<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>")],
  ["the head of a JPEG without a picture", Buffer.from([0xff, 0xd8, 0xff, 0xe0, 1, 2, 3])],
  ["too large", Buffer.alloc(LARGEST_PHOTO + 1, 0xff)],
])("%s is no photograph", async (_name, content) => {
  expect(await makePhoto(content)).toBeNull();
});

test("in a folder: whole or not at all, and no id becomes a path", async () => {
  const folder = await mkdtemp(join(tmpdir(), "photos-"));
  try {
    const store = inFolder(join(folder, "kept"));
    expect(await store.get("../../etc/passwd")).toBeNull();
    await store.put("../../etc/passwd", Buffer.from("picture"));
    expect(await store.get("../../etc/passwd")).toEqual(Buffer.from("picture"));
    expect(await readdir(folder)).toEqual(["kept"]);
    expect(await readdir(join(folder, "kept"))).toEqual([expect.stringMatching(/^[0-9a-f]{64}\.jpg$/)]);
  } finally {
    await rm(folder, { recursive: true });
  }
});
