"""SciPy on a circuit that scripts/bench/circuits.ts solves too: ms a steady state, ms for ten seconds of a stroke."""
import json
import math
import pathlib
import statistics
import sys
import time

from scipy.integrate import solve_ivp

sys.path.insert(0, str(pathlib.Path(__file__).parents[2] / "reference"))
import circuits  # noqa: E402

area, ring = math.pi / 400 * 125**2, math.pi / 400 * (125**2 - 80**2)
K = 12000.0


def speed(force, friction):
    lo, hi = -1e4, 1e4
    for _ in range(60):
        mid = (lo + hi) / 2
        if friction * math.tanh(mid / 0.05) + 0.005 * mid < force:
            lo = mid
        else:
            hi = mid
    return (lo + hi) / 2


def stroke(_t, y):
    p, a, b, x = y
    v = speed(a - b * ring / area - 100 * 100 / area, 100 * 2 / area)
    feed = circuits.sgn_sqrt(30 * (0.6 - 0.05) / 0.95, p - a)
    back = circuits.sgn_sqrt(30 * (0.6 - 0.05) / 0.95, b)
    out = 58 - 0.004 * p - 4 * max(0, p - 200) - feed
    va, vb = 0.3 + area * x / 1000, 0.3 + ring * (100 - x) / 1000
    stop = 2000 * max(0.0, x - 100)
    v -= stop
    return [out / 60 / (0.3 / K), (feed - 0.06 * area * v) / 60 / (va / K), (0.06 * ring * v - back) / 60 / (vb / K), v]


def median(f, n):
    took = []
    for _ in range(n):
        began = time.perf_counter()
        f()
        took.append(1000 * (time.perf_counter() - began))
    return statistics.median(took)


json.dump(
    {
        "steady": median(circuits.lift, 30),
        "inTime": median(lambda: solve_ivp(stroke, (0, 8), [90, 82, 3, 5.0], method="Radau", rtol=1e-3, atol=1e-2), 3),
    },
    sys.stdout,
)
