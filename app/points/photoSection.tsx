/** Photographs taken at a point. */
import type { PointPage } from "~/domain/readings/index.server";
import { Section } from "~/ui/page";
import { dayText, useSite } from "~/ui/site";

export function PhotoSection({ photos, of }: { photos: PointPage["photos"]; of: string }) {
  const site = useSite();
  if (photos.length === 0) return null;
  return (
    <Section title="Photographs">
      <ul className="mt-2 grid grid-cols-2 gap-3">
        {photos.map((p) => {
          const when = dayText(p.at, site);
          return (
            <li key={p.id}>
              <a href={`/points/photo/${p.id}`}>
                <img
                  src={`/points/photo/${p.id}`}
                  alt={`${of}, ${when}`}
                  loading="lazy"
                  className="aspect-4/3 w-full border border-line object-cover"
                />
              </a>
              <span className="text-xs text-ink-2">
                {when}, {p.by}
              </span>
            </li>
          );
        })}
      </ul>
    </Section>
  );
}
