/** Where a job stands, from the complaint to the signed record, out of what its parts say. */

/** An isolation of a job. */
export interface JobCause {
  closed: boolean;
}

/** A piece of work of a job. */
export interface JobWork {
  cancelled: boolean;
  done: boolean;
  /** A reading after it proves it, or somebody signed that none can. */
  proven: boolean;
  signed: boolean;
}

export interface JobFacts {
  causes: readonly JobCause[];
  works: readonly JobWork[];
  /** Ended by hand. */
  closed: boolean;
}

export const jobStages = ["noticed", "cause", "decided", "done", "proven", "signed"] as const;
export type JobStageId = (typeof jobStages)[number];

/** Done; where the job is; still to come; passed by, without being done. */
export type JobStageState = "done" | "here" | "ahead" | "left";

export interface JobStand {
  stages: { id: JobStageId; state: JobStageState }[];
  /** The stage that it is at; null: it is over. */
  here: JobStageId | null;
}

/**
 * Where a job stands: for its page and for the list of jobs.
 *
 * A job is at the first stage that is not done. A cause that nobody isolated is passed by as soon as work is decided: a named fault or
 * plain sight needs no isolation. Cancelled work counts as none; several pieces are at the stage of the one that is least far.
 *
 * @param facts what its isolations and its work say
 * @returns every stage in the order of the work with its state, and the one that the job is at; never throws
 * @example
 * jobStand({ causes: [{ closed: true }], works: [], closed: false }).here // "decided"
 */
export function jobStand({ causes, works, closed }: JobFacts): JobStand {
  const live = works.filter((w) => !w.cancelled);
  const all = (is: (w: JobWork) => boolean) => live.length > 0 && live.every(is);
  const isDone: Record<JobStageId, boolean> = {
    noticed: true,
    cause: causes.length > 0 && causes.every((c) => c.closed),
    decided: live.length > 0,
    done: all((w) => w.done),
    proven: all((w) => w.proven),
    signed: all((w) => w.signed),
  };
  const isPassed = (id: JobStageId) => id === "cause" && causes.length === 0 && isDone.decided;
  const here = closed ? null : (jobStages.find((id) => !isDone[id] && !isPassed(id)) ?? null);
  const at = here === null ? jobStages.length : jobStages.indexOf(here);
  return {
    here,
    stages: jobStages.map((id, i) => ({
      id,
      state: isDone[id] ? "done" : id === here ? "here" : i < at ? "left" : "ahead",
    })),
  };
}
