"""Tank balance by a general ODE routine, age replacement and mean lives by quadrature, with SciPy.

Run: python3 reference/balance.py > reference/balance.py.json   (Debian: python3-scipy)
"""
import json

import numpy as np
import scipy
from scipy import integrate, optimize

tanks = []
for volume, flow, beta, ingress, start, goal in [(400, 60, 200, 3000, 40_000, 800), (1200, 90, 75, 0, 12_000, 150), (250, 20, 2, 9000, 5_000, 2_000), (600, 45, 10, 20_000, 9_000, 300)]:
    rate = lambda t, n: [(ingress - flow * (1 - 1 / beta) * n[0]) / volume]
    run = integrate.solve_ivp(rate, (0, 600), [start], method="Radau", rtol=1e-10, atol=1e-9, t_eval=[1, 5, 20, 60, 240, 600])
    reach = lambda t, n: n[0] - goal
    reach.terminal = True
    hit = integrate.solve_ivp(rate, (0, 5000), [start], method="Radau", rtol=1e-10, atol=1e-9, events=reach)
    tanks.append({"volume": volume, "flow": flow, "beta": beta, "ingress": ingress, "start": start, "goal": goal, "minutes": run.t.tolist(), "counts": run.y[0].tolist(), "time": float(hit.t_events[0][0]) if len(hit.t_events[0]) else None})

ages = []
for shape, scale, planned, unplanned in [(2.5, 10_000, 1, 5), (1.4, 8_000, 2, 30), (4.0, 25_000, 1, 3)]:
    alive = lambda t: np.exp(-((t / scale) ** shape))
    cost = lambda t: (planned * alive(t) + unplanned * (1 - alive(t))) / integrate.quad(alive, 0, t, epsabs=1e-10, epsrel=1e-11, limit=200)[0]
    best = optimize.minimize_scalar(cost, bounds=(scale * 0.02, scale * 3), method="bounded", options={"xatol": 1e-6})
    ages.append({"shape": shape, "scale": scale, "planned": planned, "unplanned": unplanned, "age": best.x, "rate": best.fun})

print(json.dumps({"made": f"SciPy {scipy.__version__}", "tanks": tanks, "ages": ages}, indent=1))
