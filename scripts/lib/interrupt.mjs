/** node scripts/lib/interrupt.mjs stop|start CLUSTER: the test database goes away and comes back. */
import { interruptCluster } from "./cluster.mjs";

interruptCluster(process.argv[3], process.argv[2]);
