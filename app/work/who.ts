/** Who did it, and who sent it where that was somebody else. */
export const whoOf = ({ by, sentBy }: { by: string; sentBy?: string | null }) =>
  sentBy ? `${by} (sent by ${sentBy})` : by;
