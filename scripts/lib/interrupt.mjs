/** node scripts/lib/interrupt.mjs stop|start: the test database goes away and comes back. */
import { interruptCluster } from "./cluster.mjs";

interruptCluster("test", process.argv[2]);
