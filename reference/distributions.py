"""Normal and Student distributions from SciPy, over their whole range. Run: python3 reference/distributions.py > reference/distributions.py.json"""
import json
import sys

import scipy
from scipy.stats import norm, t

Z = [-37.5, -20, -8.3, -5, -3.0001, -3, -2.9999, -1.5, -0.1, 0, 1e-6, 0.7, 1.96, 2.9999, 3.0001, 5, 8]
P = [1e-300, 1e-50, 1e-12, 1e-6, 0.001, 0.025, 0.3, 0.499999, 0.5, 0.7, 0.975, 0.999, 1 - 1e-9]
DF = [0.5, 1, 2, 3, 4.5, 7, 10, 30, 120, 2000]
T = [-50, -8, -3, -1.2, -0.01, 0, 0.01, 0.9, 2.5, 6, 40]
PT = [1e-9, 0.001, 0.025, 0.3, 0.5, 0.7, 0.95, 0.9995]

json.dump(
    {
        "made by": "scipy " + scipy.__version__,
        "normalCdf": [[z, norm.cdf(z)] for z in Z],
        "normalQuantile": [[p, norm.ppf(p)] for p in P],
        "studentCdf": [[df, x, t.cdf(x, df)] for df in DF for x in T],
        "studentPdf": [[df, x, t.pdf(x, df)] for df in DF for x in T],
        "studentQuantile": [[df, p, t.ppf(p, df)] for df in DF for p in PT],
    },
    sys.stdout,
)
