"""Theil-Sen, inverse Gaussian and the small-sample factor of the MAD, by SciPy and NumPy.

Run: python3 reference/statistics.py > reference/statistics.py.json   (Debian: python3-scipy)
The data are those of reference/statistics.R.json, so R's data sets serve both.
"""
import json
import pathlib

import numpy as np
import scipy
from scipy import stats

here = pathlib.Path(__file__).parent
r = json.loads((here / "statistics.R.json").read_text())

theil = []
for entry in r["lines"]:
    fit = stats.theilslopes(entry["y"], entry["x"], alpha=0.95, method="separate")
    theil.append({"name": entry["name"], "slope": fit.slope, "intercept": fit.intercept, "low": fit.low_slope, "high": fit.high_slope})
nile = r["mannKendall"][0]["y"]
fit = stats.theilslopes(nile, np.arange(len(nile)), alpha=0.95, method="separate")
theil.append({"name": "Nile", "slope": fit.slope, "intercept": fit.intercept, "low": fit.low_slope, "high": fit.high_slope})

# first passage of a Wiener process: mean a/v, shape a²/σ²; scipy's invgauss(mu=mean/shape, scale=shape)
passage = []
for a, v, s in [(5, 0.2, 0.3), (3.5, 0.0004, 0.02), (0.7, 0.01, 0.2), (5, 0.2, 0.24), (5, 0.2, 0.2), (5, 0.2, 0.15), (5, 0.2, 0.02)]:
    mean, shape = a / v, a * a / s / s
    d = stats.invgauss(mean / shape, scale=shape)
    passage.append({"distance": a, "drift": v, "sigma": s, "quantiles": [[p, d.ppf(p)] for p in (0.05, 0.1, 0.5, 0.9)], "cdf": [[t, d.cdf(t)] for t in (0.5 * mean, mean, 2 * mean)]})

rng = np.random.default_rng(20261124)
factors = []
for n in (2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 15, 20, 30, 50, 100):
    total, count = 0.0, 0
    for _ in range(40):
        x = rng.standard_normal((10_000, n))
        mad = np.median(np.abs(x - np.median(x, axis=1, keepdims=True)), axis=1)
        total += 1.4826 * mad.sum()
        count += len(mad)
    factors.append([n, round(total / count, 4)])

print(json.dumps({"made": f"SciPy {scipy.__version__}, NumPy {np.__version__}", "theilSen": theil, "firstPassage": passage, "lnNormalCdf": [[z, stats.norm.logcdf(z)] for z in (0.0, -2.9, -3.1, -5.0, -8.0, -8.4, -12.0, -37.0, -60.0)], "madFactor": factors}, indent=1))
