"""Seven circuits in a steady state, written down independently of the application and solved by SciPy.

Run: python3 reference/circuits.py > reference/circuits.py.json   (Debian: python3-scipy)
Laws as docs/circuit.md states them, without any rounding of corners: an orifice is K*sqrt(dp), a relief valve max(0, .).
Pressures in bar, flows in L/min, speeds of pistons in cm/s.
"""
import json
import math
import sys

import scipy
from scipy.optimize import root

RHO = 870.0


def sgn_sqrt(k, dp):
    return math.copysign(k * math.sqrt(abs(dp)), dp)


def hole(diameter, cd=0.62):
    return cd * math.pi / 4 * (diameter / 1000) ** 2 * math.sqrt(2e5 / RHO) * 60000


def clamp(x):
    return min(1.0, max(0.0, x))


def two_part(a, b, dp):
    """Flow through dp = a q + b q^2."""
    if b == 0:
        return dp / a
    return math.copysign((-a + math.sqrt(a * a + 4 * b * abs(dp))) / (2 * b), dp)


def solve(equations, guess):
    best = None
    for method in ("hybr", "lm"):
        s = root(equations, guess, method=method, tol=1e-13)
        worst = max(abs(v) for v in equations(s.x))
        if best is None or worst < best[0]:
            best = (worst, s.x)
    if best[0] > 1e-7:
        raise SystemExit(f"not solved: {best}")
    return best[1]


def fixed_pump(slip=1.0, crack=180.0, held=0.0, seat=0.0, blocked=0.0, speed=1.0, air=0.0):
    q0 = 45 * 1450 * speed / 1000 * (1 - air)

    def f(x):
        p = x[0]
        q = q0 - 0.0097875 * slip * p
        return [q - 4.35 * max(0, p - crack) - seat * p - sgn_sqrt(hole(held), p) - sgn_sqrt(hole(3) * (1 - blocked), p)]

    return {"pump.out": solve(f, [150.0])[0]}


def compensated(leak=1.0, low=0.0, worn=1.0, short=0.0, mu=1.0):
    def f(x):
        p, c = x
        stroke = (1 - short) * clamp((210 - low - p) / 8)
        to_case = 0.0105 * leak / mu * (p - c)
        out = (0.004 + 0.006 * worn + 0.003) / mu * p
        drain = two_part(0.4 * mu + 1e-6, 0.01, c)
        return [148 * stroke - to_case - out, to_case - drain]

    p, c = solve(f, [208.0, 0.5])
    return {"pump.out": p, "pump.case": c}


def lift(command=0.6, filt=1.0, strainer=1.0, piston=0.0, worn=1.0, bind=1.0, mu=1.0):
    """Fixed pump, strainer, relief, proportional valve, cylinder 125/80 against 100 kN, return filter with bypass."""
    area, ring = math.pi / 400 * 125**2, math.pi / 400 * (125**2 - 80**2)
    open_ = (command - 0.05) / 0.95
    leak = 0.004 * worn / mu

    def f(x):
        s, p, a, b, t, v = x
        q = 40 * 1450 / 1000 * clamp((s + 0.35) / 0.1 + 1)
        suction = two_part(0.0006 * mu * strainer + 1e-7, 2e-6 * strainer, -s)
        slip = 0.004 / mu * (p - s)
        pa = sgn_sqrt(30 * open_, p - a) + leak * (p - a)
        pb = leak * (p - b)
        at = leak * (a - t)
        bt = sgn_sqrt(30 * open_, b - t) + leak * (b - t)
        back = two_part(0.012 * mu * filt, 3e-5, t) + 60 * max(0, t - 3)
        ab = (1e-5 + piston) / mu * (a - b)
        friction = 100 * 2 * bind / area
        return [
            suction + slip - q,
            q - slip - 4 * max(0, p - 200) - pa - pb,
            pa - at - ab - 0.06 * area * v,
            0.06 * ring * v + ab + pb - bt,
            at + bt - back,
            a - b * ring / area - 100 * 100 / area - friction * math.tanh(v / 0.05) - 0.005 * v,
        ]

    s, p, a, b, t, v = solve(f, [-0.03, 100.0, 90.0, 3.0, 0.5, 7.0])
    return {"pump.in": s, "pump.out": p, "cylinder.A": a, "cylinder.B": b, "filter.in": t, "cylinder:0": v}


def motor(worn=1.0, squeezed=1.0, belt=0.0):
    """Compensated pump, line with resistance, motor against 900 N m, throttle in the return."""

    def f(x):
        p, a, b, n = x
        slips = belt * p / (p + 100)
        q = 71 * 1450 * (1 - slips) / 1000 * clamp((230 - p) / 8)
        feed = two_part(0.005 * squeezed + 1e-6, 1e-4 * squeezed, p - a)
        case = 0.01 * worn
        across = 0.005 * worn * (a - b)
        through = 500 * n / 1000
        return [
            q - 0.006 * p - feed,
            feed - through - across - case * a,
            through + across - case * b - sgn_sqrt(hole(8), b),
            a - b - 900 * 20 * math.pi / 500 - 8 * math.tanh(n / 2) - 0.01 * n,
        ]

    p, a, b, n = solve(f, [215.0, 200.0, 12.0, 195.0])
    return {"pump.out": p, "motor.A": a, "motor.B": b, "motor:0": n}


def branches(reduce_low=0.0, sequence_low=0.0, stuck=0.0, control_stuck=0.0):
    """A reducing valve feeds a clutch, a flow control a throttle, a sequence valve a second throttle, one relief valve."""

    def f(x):
        p, r, c, s = x
        q = 28 * 1450 / 1000 - 0.002 * p
        opening = max(clamp((30 - reduce_low - r) / 2), stuck)
        red = sgn_sqrt(8 * opening, p - r)
        x_ = (p - c) / 8
        fc = (1 - control_stuck) * 12 * x_ / math.sqrt(1 + x_ * x_) + control_stuck * sgn_sqrt(12 / math.sqrt(8), p - c)
        seq = sgn_sqrt(25 * clamp((p - (100 - sequence_low)) / 5), p - s)
        return [
            q - red - fc - seq - 4 * max(0, p - 140),
            red - 0.05 * r,
            fc - sgn_sqrt(hole(3), c),
            seq - sgn_sqrt(hole(2.5), s),
        ]

    p, r, c, s = solve(f, [104.0, 29.0, 4.0, 60.0])
    return {"pump.out": p, "clutch.P": r, "control.out": c, "sequence.out": s}


def lowering(set_low=0.0, back=0.0, set_=190.0):
    """A cylinder 125/80 lowered against a counterbalance valve, the pump driving the rod side through orifices."""
    area, ring = math.pi / 400 * 125**2, math.pi / 400 * (125**2 - 80**2)

    def f(x):
        p, a, v_, b, v = x
        q = 28 * 1450 / 1000 - 0.002 * p
        feed = sgn_sqrt(hole(4), p - b)
        lift = clamp((a + 4 * b - 5 * v_ - (set_ - set_low)) / 40)
        out = sgn_sqrt(20 * lift, a - v_) + back * (a - v_)
        return [
            q - feed - 4 * max(0, p - 160),
            -0.06 * area * v - out - 1e-5 * (a - b),
            out - sgn_sqrt(hole(5), v_),
            feed + 0.06 * ring * v + 1e-5 * (a - b),
            a - b * ring / area - 100 * 150 / area - 100 * 2 / area * math.tanh(v / 0.05) - 0.005 * v,
        ]

    p, a, v_, b, v = solve(f, [60.0, 130.0, 5.0, 30.0, -8.0])
    return {"pump.out": p, "cylinder.A": a, "holding.V": v_, "cylinder.B": b, "cylinder:0": v}


def check_valve(k, crack, dp):
    """An orifice of what exceeds the cracking pressure, behind a seat that clears over 0.05 bar."""
    over = max(0.0, dp - crack)
    return k * math.sqrt(over) * clamp(over / 0.05)


def loop(stroke=1.0, torque=1000.0, pump_slip=1.0, pump_case=1.0, charge_set=22.0, stuck=0.0, worn=1.0):
    """Closed loop: a pump of 45 sends the oil round a motor of 500; a charge pump makes up what leaves by cases and flushing."""

    def f(x):
        c, a, b, n = x
        charge = 12 * 1450 / 1000 - 0.001 * c
        make_a, make_b = check_valve(40, 0.5, c - a), check_valve(40, 0.5, c - b)
        sent = 45 * 1450 / 1000 * stroke - 0.004 * pump_slip * (a - b)
        case_a, case_b = 0.005 * pump_case * a, 0.005 * pump_case * b
        across = 0.005 * worn * (a - b)
        through = 500 * n / 1000
        open_a = 0.5 * (1 + math.tanh((b - a - 4) / 2))
        open_b = 0.5 * (1 + math.tanh((a - b - 4) / 2))
        out_a = (1 - stuck) * open_a * 1.5 * max(0, a - 18)
        out_b = (1 - stuck) * open_b * 1.5 * max(0, b - 18)
        return [
            charge - make_a - make_b - 4 * max(0, c - charge_set),
            sent + make_a - case_a - through - across - 0.01 * worn * a - out_a,
            -sent + make_b - case_b + through + across - 0.01 * worn * b - out_b,
            a - b - torque * 20 * math.pi / 500 - 8 * math.tanh(n / 2) - 0.01 * n,
        ]

    high = max(150.0, torque * 20 * math.pi / 500 + 25)
    c, a, b, n = solve(f, [24.0, high, 20.0, 120.0 * stroke])
    return {"charge.out": c, "motor.A": a, "motor.B": b, "motor:0": n}


def main():
    cases = [
        ("fixed", {}, fixed_pump()),
        ("fixed", {"pump": {"slip": 4}}, fixed_pump(slip=5)),
        ("fixed", {"pump": {"speedLow": 0.2}}, fixed_pump(speed=0.8)),
        ("fixed", {"pump": {"air": 0.15}}, fixed_pump(air=0.15)),
        ("fixed", {"relief": {"setLow": 60}}, fixed_pump(crack=120)),
        ("fixed", {"relief": {"heldOpen": 1.5}}, fixed_pump(held=1.5)),
        ("fixed", {"relief": {"seat": 0.05}}, fixed_pump(seat=0.05)),
        ("fixed", {"relief": {"springBroken": 1}}, fixed_pump(crack=9)),
        ("fixed", {"hole": {"blocked": 0.4}}, fixed_pump(blocked=0.4)),
        ("compensated", {}, compensated()),
        ("compensated", {"pump": {"caseLeak": 9}}, compensated(leak=10)),
        ("compensated", {"pump": {"setLow": 90}}, compensated(low=90)),
        ("compensated", {"pump": {"stuckShort": 0.5}}, compensated(short=0.5)),
        ("compensated", {"two": {"worn": 5}}, compensated(worn=6)),
        ("lift", {}, lift()),
        ("lift", {"filter": {"blocked": 2}}, lift(filt=3)),
        ("lift", {"filter": {"blocked": 9}}, lift(filt=10)),
        ("lift", {"strainer": {"blocked": 9}}, lift(strainer=10)),
        ("lift", {"cylinder": {"pistonLeak": 0.05}}, lift(piston=0.05)),
        ("lift", {"cylinder": {"friction": 4}}, lift(bind=5)),
        ("lift", {"valve": {"worn": 9}}, lift(worn=10)),
        ("lift", {"valve": {"stuck": 0.5}}, lift(command=0.3)),
        ("motor", {}, motor()),
        ("motor", {"motor": {"worn": 3}}, motor(worn=4)),
        ("motor", {"line": {"squeezed": 9}}, motor(squeezed=10)),
        ("motor", {"pump": {"beltSlips": 0.5}}, motor(belt=0.5)),
        ("branches", {}, branches()),
        ("branches", {"reducing": {"setLow": 12}}, branches(reduce_low=12)),
        ("branches", {"reducing": {"stuckOpen": 0.5}}, branches(stuck=0.5)),
        ("branches", {"sequence": {"setLow": 40}}, branches(sequence_low=40)),
        ("branches", {"control": {"stuckOpen": 1}}, branches(control_stuck=1)),
        ("lowering", {}, lowering()),
        ("lowering", {"holding": {"setLow": 50}}, lowering(set_low=50)),
        ("lowering", {"holding": {"leakBack": 0.05}}, lowering(back=0.05)),
        ("loop", {}, loop()),
        ("loop", {"pump": {"slip": 9}}, loop(pump_slip=10)),
        ("loop", {"pump": {"caseLeak": 3}}, loop(pump_case=4)),
        ("loop", {"pump": {"stuckShort": 0.3}}, loop(stroke=0.7)),
        ("loop", {"relief": {"setLow": 10}}, loop(charge_set=12)),
        ("loop", {"flushing": {"stuck": 1}}, loop(stuck=1)),
        ("loop", {"motor": {"worn": 3}}, loop(worn=4)),
    ]
    json.dump(
        {"made by": "scipy " + scipy.__version__, "cases": [{"circuit": c, "faults": f, "values": v} for c, f, v in cases]},
        sys.stdout,
    )


if __name__ == "__main__":
    main()
