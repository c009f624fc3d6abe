/** Measuring by the clock: medians of many, after a warm-up. */
export const say = (line: string) => process.stdout.write(`${line}\n`);
export const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!;

export async function time<T>(work: () => Promise<T> | T): Promise<{ ms: number; value: T }> {
  const start = performance.now();
  const value = await work();
  return { ms: performance.now() - start, value };
}

const ROUNDS = 25;
const WARM_UP = 5;

async function many(work: () => Promise<void>): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const { ms } = await time(work);
    if (i >= WARM_UP) times.push(ms);
  }
  return median(times);
}

/** The cookie of a signed-in engineer. */
export async function signedIn(): Promise<string> {
  const form = new URLSearchParams({ name: "engineer", password: process.env.BENCH_PASSWORD! });
  const answer = await fetch(`${process.env.BENCH_URL}/sign-in`, {
    method: "POST",
    body: form,
    redirect: "manual",
    headers: { Origin: process.env.BENCH_URL!, "Content-Type": "application/x-www-form-urlencoded" },
  });
  return answer.headers.get("set-cookie")!.split(";")[0]!;
}

/** Server time of a page, over loopback. */
export function page(path: string, cookie: string): Promise<number> {
  return many(async () => {
    const answer = await fetch(`${process.env.BENCH_URL}${path}`, { headers: { Cookie: cookie } });
    await answer.text();
    if (answer.status !== 200) throw new Error(`${path} answered ${answer.status}`);
  });
}

export function sqlTime(
  client: { query(sql: string, values: unknown[]): Promise<unknown> },
  queries: readonly (readonly [sql: string, values: unknown[]])[],
): Promise<number> {
  return many(async () => {
    for (const [sql, values] of queries) await client.query(sql, values);
  });
}
