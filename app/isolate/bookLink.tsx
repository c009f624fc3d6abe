/** From a cause that is sure enough to its work: into a stop, or now where it needs none. */
import { Link } from "react-router";

interface Props {
  /** The point whose finding condemns the part; a part without one is booked for by itself. */
  at: { point: string; component: string | null } | { point: null; component: string };
  act: { stop: boolean; part: boolean; interim?: true };
  from: "fault" | "isolation";
  of: string;
  className?: string;
}

export function BookLink({ at, act, from, of, className = "way" }: Props) {
  const query = new URLSearchParams({
    ...(at.point === null ? { component: at.component } : { point: at.point }),
    from,
    of,
  });
  if (!act.part) query.set("kind", "repair");
  if (!act.stop) query.set("now", "1");
  if (act.interim) query.set("interim", "1");
  return (
    <Link to={`/work/book?${query}`} className={className}>
      {act.stop ? "Book work into a stop" : "Do it now, on record"}
    </Link>
  );
}
