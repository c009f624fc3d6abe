/**
 * Photographs as they are kept: made anew from their pixels, so that nothing that came with a file (a place, a name, a
 * program) is kept or sent out again. One interface, two places: the database, or a folder that all servers share.
 */
import { createHash, randomUUID } from "node:crypto";
import { link, mkdir, readFile, unlink, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { eq } from "drizzle-orm";
import sharp from "sharp";
import { db } from "~/db/client.server";
import { storedFiles } from "~/db/schema";
import { config } from "~/runtime/config.server";
import { imageType } from "./photo.server";

export const LARGEST_PHOTO = 12_000_000;
const LONGEST_SIDE = 1600;
const MOST_PIXELS = 60_000_000;
const QUALITY = 80;

interface Store {
  /** @throws where there is one under this key already: a picture is never exchanged */
  put(key: string, content: Buffer): Promise<void>;
  /** Null: there is none. */
  get(key: string): Promise<Buffer | null>;
}

const inDatabase: Store = {
  async put(key, content) {
    await db().insert(storedFiles).values({ key, content });
  },
  async get(key) {
    const [row] = await db().select({ content: storedFiles.content }).from(storedFiles).where(eq(storedFiles.key, key));
    return row?.content ?? null;
  },
};

/** Files named by a hash of their id: no text of a person becomes a path. */
export const inFolder = (folder: string): Store => {
  const path = (key: string) => join(folder, `${createHash("sha256").update(key).digest("hex")}.jpg`);
  return {
    async put(key, content) {
      await mkdir(folder, { recursive: true });
      // whole or not at all, since another server may read while this one writes; and never over another one
      const whole = `${path(key)}.${randomUUID()}`;
      await writeFile(whole, content, { mode: 0o640, flag: "wx" });
      await link(whole, path(key)).finally(() => unlink(whole));
    },
    async get(key) {
      return readFile(path(key)).catch(() => null);
    },
  };
};

const store = (): Store => (config.photoFolder ? inFolder(config.photoFolder) : inDatabase);

export interface MadePhoto {
  content: Buffer;
  width: number;
  height: number;
}

/** One picture at a time: eight of 59 megapixels at once took 1.6 GB. */
let lastPicture: Promise<unknown> = Promise.resolve();

function oneAtATime<T>(make: () => Promise<T>): Promise<T> {
  const made = lastPicture.then(make);
  lastPicture = made.catch(() => undefined);
  return made;
}

/** A picture made anew: upright as it was held, its longest side at most 1600 pixels, JPEG. Null: it is no picture. */
export async function makePhoto(content: Buffer): Promise<MadePhoto | null> {
  if (content.length === 0 || content.length > LARGEST_PHOTO || !imageType(content)) return null;
  try {
    const { data, info } = await oneAtATime(() =>
      sharp(content, { limitInputPixels: MOST_PIXELS, failOn: "error" })
        .rotate()
        .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: "inside", withoutEnlargement: true })
        .flatten({ background: "#ffffff" })
        .jpeg({ quality: QUALITY })
        .toBuffer({ resolveWithObject: true }),
    );
    return { content: data, width: info.width, height: info.height };
  } catch {
    return null;
  }
}

export const keepPhoto = (id: string, content: Buffer) => store().put(id, content);
export const photoContent = (id: string) => store().get(id);
