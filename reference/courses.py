"""Six circuits in time, written down independently of the application, by SciPy's Radau.

Run: python3 reference/courses.py > reference/courses.py.json   (Debian: python3-scipy)
Pressures in bar, volumes in L, flows in L/min, time in s, places in cm. Pistons have no mass: their speed follows from
the balance of forces, which here is written as the drag that the application gives them.
"""
import json
import math
import sys

import numpy as np
import scipy
from scipy.integrate import solve_ivp

RHO = 870.0
K = 12000.0


def q_orifice(k, dp):
    return k * dp / (dp * dp + 1e-4) ** 0.25


def hole(diameter, cd=0.62):
    return cd * math.pi / 4 * (diameter / 1000) ** 2 * math.sqrt(2e5 / RHO) * 60000


def run(f, y0, until, at, events=None):
    s = solve_ivp(f, (0, until), y0, method="Radau", rtol=1e-8, atol=1e-9, t_eval=at, max_step=until / 50, events=events)
    if not s.success:
        raise SystemExit(s.message)
    return s


AT = [0.05, 0.2, 0.5, 1.0, 2.0]
out = []

# 1 start-up of a fixed pump against an orifice and a relief valve, 0.3 L of line
s = run(lambda t, y: [(65.25 - 0.01 * y[0] - q_orifice(hole(3), y[0]) - 4 * max(0, y[0] - 180)) / 60 / (0.3 / K)], [0.0], 2, AT)
out.append({"circuit": "startUp", "at": AT, "pump.out": s.y[0].tolist()})

# 2 a compensated pump of which the consumer opens a leak at 1 s (two phases)
def comp(worn):
    return lambda t, y: [(148 * min(1, max(0, (210 - y[0]) / 8)) - (0.01 + 0.02 * worn) * y[0]) / 60 / (0.3 / K)]
a = run(comp(1), [0.0], 1, [0.05, 0.2, 0.5, 1.0])
b = run(comp(30), [a.y[0][-1]], 1, [1.0])
out.append({"circuit": "opens", "at": [0.05, 0.2, 0.5, 1.0, 2.0], "pump.out": a.y[0].tolist() + b.y[0].tolist()})

# 3 decay of 5 L through a laminar leak with viscosity 2
s = run(lambda t, y: [-0.002 / 2 * y[0] / 60 / (5 / K)], [150.0], 20, [1, 5, 10, 20])
out.append({"circuit": "decay", "at": [1, 5, 10, 20], "leak.P": s.y[0].tolist()})

# 4 an accumulator of 10 L, precharge 90, filled through an orifice of 2 mm, then emptying by a leak: isothermal
def acc(t, y):
    p, v = y
    gas = 91.01325 * 10 / (10 - v) - 1.01325
    pump = 30 - 0.002 * p
    fill = q_orifice(hole(2), p - gas)
    relief = 4 * max(0, p - 200)
    return [(pump - fill - relief) / 60 / (0.3 / K), (fill - 0.02 * gas) / 60]
s = run(acc, [95.0, 0.2], 20, [1, 3, 6, 12, 20])
out.append({"circuit": "fills", "at": [1, 3, 6, 12, 20], "pump.out": s.y[0].tolist(), "store:1": s.y[1].tolist()})

# 5 a cylinder 80/45 against 60 kN lifted by 40 L/min through an orifice behind it, from 10 % of 500 mm
area, ring = math.pi / 400 * 80**2, math.pi / 400 * (80**2 - 45**2)
def speed(pa, pb, load, friction):
    force = pa - pb * ring / area - 100 * load / area
    # friction*tanh(v/0.05) + 0.005 v = force
    lo, hi = -1e5, 1e5
    for _ in range(200):
        mid = (lo + hi) / 2
        if 100 * friction / area * math.tanh(mid / 0.05) + 0.005 * mid < force:
            lo = mid
        else:
            hi = mid
    return (lo + hi) / 2
def lift(t, y):
    pa, pb, x = y
    v = speed(pa, pb, 60, 2)
    va = 0.3 + area * x / 1000
    vb = 0.3 + ring * (50 - x) / 1000
    qa = 40 - 0.001 * pa - 4 * max(0, pa - 180) - 0.06 * area * v
    qb = 0.06 * ring * v - q_orifice(hole(6), pb)
    return [qa / 60 / (va / K), qb / 60 / (vb / K), v]
s = run(lift, [130.0, 3.0, 5.0], 2, AT)
out.append({"circuit": "lift", "at": AT, "cylinder.A": s.y[0].tolist(), "cylinder.B": s.y[1].tolist(), "cylinder:1": s.y[2].tolist()})

# 6 shut in with a leak across the piston: both chambers rise (load on the bore side)
def shut(t, y):
    pa, pb, x = y
    v = speed(pa, pb, 40, 0.5)
    q = 0.0005 * (pa - pb)
    return [(-0.06 * area * v - q) / 60 / (2.0 / K), (0.06 * ring * v + q) / 60 / (1.4 / K), v]
s = run(shut, [81.0, 2.0, 25.0], 20, [2, 5, 10, 20])
out.append({"circuit": "shutIn", "at": [2, 5, 10, 20], "cylinder.A": s.y[0].tolist(), "cylinder.B": s.y[1].tolist()})

json.dump({"made by": "scipy " + scipy.__version__, "courses": out}, sys.stdout)
