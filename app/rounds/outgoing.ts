/** What a tablet sends to the server, and what becomes of it. */
interface Item {
  submission: string;
  roundId: string;
  pointId: string;
  /** Epoch ms on the device. */
  at: number;
}

export interface OutgoingReading extends Item {
  kind: "reading";
  fields: Record<string, string>;
}
export interface OutgoingSkip extends Item {
  kind: "skip";
  reason: string;
}
export interface OutgoingPhoto extends Item {
  kind: "photo";
  /** Submission of the reading that it was taken with. */
  reading: string;
  mediaType: string;
  base64: string;
}
export type Outgoing = OutgoingReading | OutgoingSkip | OutgoingPhoto;

export interface Fate {
  submission: string;
  fate: "saved" | "conflict" | "refused";
  field?: string;
  message?: string;
}
