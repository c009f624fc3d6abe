/** A database of its own for a file of tests, beside the one that npm test gives to the run. */
import pg from "pg";

/** Make it, and let everything that connects from now on use it. Returns what drops it again. */
export async function ownDatabase(name: string): Promise<() => Promise<void>> {
  const url = new URL(process.env.DATABASE_URL!);
  const given = url.href;
  const database = `${url.pathname.slice(1)}_${name}`;
  const ask = async (sql: string) => {
    const client = new pg.Client({ connectionString: given });
    await client.connect();
    await client.query(sql).finally(() => client.end());
  };
  await ask(`drop database if exists "${database}" with (force)`);
  await ask(`create database "${database}"`);
  url.pathname = `/${database}`;
  process.env.DATABASE_URL = url.href;
  return () => ask(`drop database if exists "${database}" with (force)`);
}
