"""A weight that falls on a clamped plate, solved by CalculiX (implicit dynamics, large deflections, elastic): what fall.json holds.

    python3 fall.py > fall.json        (needs ccx; some minutes)

A square of steel, 500 mm, 4.7625 mm thick, clamped on its four edges, of solids of second order (C3D20R, one through the thickness). The
weight is spread over the nodes of a square of 80 mm on its top in its middle, hangs on to them, and begins with the speed it has after its
fall; gravity goes on pulling it. What is read is how far the middle goes before it comes back.
"""
import json, math, os, re, subprocess, sys, tempfile

SIDE, T, E, NU, RHO, G = 500.0, 4.7625, 200_000.0, 0.3, 7.85e-9, 9806.65
PATCH, N = 80.0, 25


def deck(mass, height, seconds, step):
    # nodes of second-order bricks: corners and middles of edges; tonnes, mm, s, N
    h = SIDE / N
    ids, lines = {}, []
    for k in range(3):
        for j in range(2 * N + 1):
            for i in range(2 * N + 1):
                if (i % 2) + (j % 2) + (k % 2) > 1:
                    continue
                ids[i, j, k] = len(ids) + 1
                lines.append(f"{len(ids)},{i*h/2:.6f},{j*h/2:.6f},{k*T/2:.6f}")
    elements = []
    for j in range(0, 2 * N, 2):
        for i in range(0, 2 * N, 2):
            q = [(0, 0, 0), (2, 0, 0), (2, 2, 0), (0, 2, 0), (0, 0, 2), (2, 0, 2), (2, 2, 2), (0, 2, 2),
                 (1, 0, 0), (2, 1, 0), (1, 2, 0), (0, 1, 0), (1, 0, 2), (2, 1, 2), (1, 2, 2), (0, 1, 2),
                 (0, 0, 1), (2, 0, 1), (2, 2, 1), (0, 2, 1)]
            n = [str(ids[i + a, j + b, c]) for a, b, c in q]
            elements.append(f"{len(elements)+1}," + ",".join(n[:15]) + ",\n" + ",".join(n[15:]))
    edge = [v for (i, j, _), v in ids.items() if i in (0, 2 * N) or j in (0, 2 * N)]
    top = [v for (i, j, k), v in ids.items() if k == 2 and abs(i * h / 2 - SIDE / 2) <= PATCH / 2 + 1e-6
           and abs(j * h / 2 - SIDE / 2) <= PATCH / 2 + 1e-6]
    middle = min(ids, key=lambda p: (abs(p[0] * h / 2 - SIDE / 2) + abs(p[1] * h / 2 - SIDE / 2) + abs(p[2] - 2) * 100))
    speed = math.sqrt(2 * G * height)
    each = mass / 1000 / len(top)
    masses = "\n".join(f"{len(elements)+1+i},{n}" for i, n in enumerate(top))
    return f"""*NODE,NSET=NALL
{chr(10).join(lines)}
*ELEMENT,TYPE=C3D20R,ELSET=EALL
{chr(10).join(elements)}
*ELEMENT,TYPE=MASS,ELSET=EMASS
{masses}
*MASS,ELSET=EMASS
{each:.9e}
*NSET,NSET=TOP
{chr(10).join(map(str, top))}
*NSET,NSET=MIDDLE
{ids[middle]}
*MATERIAL,NAME=M
*ELASTIC
{E},{NU}
*DENSITY
{RHO}
*SOLID SECTION,ELSET=EALL,MATERIAL=M
*BOUNDARY
{chr(10).join(f"{n},1,3" for n in edge)}
*INITIAL CONDITIONS,TYPE=VELOCITY
TOP,3,{-speed:.6f}
*STEP,NLGEOM,INC=10000
*DYNAMIC
{step},{seconds},1e-7,{step}
*CLOAD
TOP,3,{-each * G:.9e}
*NODE PRINT,NSET=MIDDLE,FREQUENCY=1
U
*END STEP
"""


def solve(mass, height):
    with tempfile.TemporaryDirectory() as d:
        open(os.path.join(d, "fall.inp"), "w").write(deck(mass, height, 0.05, 0.0005))
        subprocess.run(["ccx", "fall"], cwd=d, check=True, stdout=subprocess.DEVNULL, env={**os.environ, "OMP_NUM_THREADS": "1"})
        dat = open(os.path.join(d, "fall.dat")).read()
    down = [-float(m.group(1)) for m in re.finditer(r"^\s+\d+\s+\S+\s+\S+\s+(\S+)\s*$", dat, re.M)]
    peak = max(range(len(down)), key=lambda i: down[i])
    assert peak < len(down) - 2, "it was still going down"
    return {"massKg": mass, "heightMm": height, "deepestMm": round(down[peak], 4)}


if __name__ == "__main__":
    out = []
    for mass, height in [(100.0, 0.0), (200.0, 10.0)]:
        out.append(solve(mass, height))
        print(out[-1], file=sys.stderr)
    json.dump({"side": SIDE, "thickness": T, "E": E, "nu": NU, "patch": PATCH, "density": RHO * 1e12, "falls": out}, sys.stdout, indent=1)
