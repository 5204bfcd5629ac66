#!/usr/bin/env python3
"""Solves the cases of assemblies.json with CalculiX and prints what README.md says; arguments: mesh size in mm, case id (all unless told).

Needs ccx and Gmsh's Python module (Debian: calculix-ccx, python3-gmsh); works in a directory of its own under the system's temporary one.
"""
import json, math, os, subprocess, sys, tempfile
import gmsh

HERE = os.path.dirname(os.path.abspath(__file__))
SIZE = float(sys.argv[1]) if len(sys.argv) > 1 else 8.0
ONLY = sys.argv[2] if len(sys.argv) > 2 else None
WORK = tempfile.mkdtemp(prefix="assemblies-")
PATCH = 40.0
TOUCH = 1e6
# from Gmsh's order of a prism's mid-side nodes to CalculiX's
PRISM = [0, 1, 2, 3, 4, 5, 6, 9, 7, 12, 14, 13, 8, 10, 11]


def sub(a, b):
    return [x - y for x, y in zip(a, b)]


def cross(a, b):
    return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]


def dot(a, b):
    return sum(x * y for x, y in zip(a, b))


def unit(v):
    return [x / math.sqrt(dot(v, v)) for x in v]


class Mesh:
    """Surfaces of the plate, of every bracket and of the bar, with nodes that lie over one another where sheets do."""

    def __init__(self, case):
        gmsh.initialize()
        gmsh.option.setNumber("General.Terminal", 0)
        gmsh.model.add("case")
        self.occ = gmsh.model.occ
        plate = case["plate"]
        self.z = plate["outline"][0][2]
        tools = [(2, self.disc([d["at"][0], d["at"][1], self.z], [0, 0, 1], d["r"])) for d in case["discs"]]
        feet = [self.foot_of(case, b) for b in case["brackets"]]
        tools += [(2, self.polygon([[p[0], p[1], self.z] for p in f])) for f in feet]
        bar = case.get("bar")
        if bar:
            strip = self.strip_of(bar)
            tools.append((2, self.polygon(strip)))
        x, y = case["at"]
        tools.append((2, self.polygon([[x + a * PATCH, y + b * PATCH, self.z] for a, b in ((-1, -1), (1, -1), (1, 1), (-1, 1))])))
        base = self.polygon(plate["outline"])
        out, parts = self.occ.fragment([(2, base)], tools)
        self.occ.synchronize()
        surfaces = sorted({t for _, t in parts[0]})
        for dt in out:
            if dt[1] not in surfaces:
                self.occ.remove([dt], recursive=False)
        self.occ.synchronize()
        over = []
        brackets = []
        for b, foot in zip(case["brackets"], feet):
            src = [t for t in surfaces if self.within(t, foot)]
            copies = self.occ.copy([(2, t) for t in src])
            up = (plate["t"] + b["t"]) / 2
            self.occ.translate(copies, 0, 0, up)
            flats = [(2, self.polygon(f)) for f in b["flats"]]
            discs = []
            for s in b["seats"]:
                for f in b["flats"]:
                    if f is foot:
                        continue
                    n = unit(cross(sub(f[1], f[0]), sub(f[2], f[1])))
                    off = dot(sub(s["at"], f[0]), n)
                    if abs(off) > b["t"]:
                        continue
                    s["mid"], s["n"] = sub(s["at"], [off * v for v in n]), n
                    discs.append((2, self.disc(s["mid"], n, s["r"])))
            _, parts = self.occ.fragment(copies + flats, discs)
            self.occ.synchronize()
            over += [(parts[i][0][1], t, up) for i, t in enumerate(src)]
            brackets.append(sorted({t for m in parts[: len(copies) + len(flats)] for _, t in m}))
        volumes = []
        if bar:
            src = [t for t in surfaces if self.within(t, strip)]
            copies = self.occ.copy([(2, t) for t in src])
            up = plate["t"] / 2
            self.occ.translate(copies, 0, 0, up)
            made = self.occ.extrude(copies, 0, 0, bar["height"], [4], [1.0], True)
            self.occ.synchronize()
            over += [(t, s, up) for (_, t), s in zip(copies, src)]
            volumes = [t for d, t in made if d == 3]
        for copy, t, up in over:
            gmsh.model.mesh.setPeriodic(2, [copy], [t], [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, up, 0, 0, 0, 1])
        for p in gmsh.model.getEntities(0):
            gmsh.model.mesh.setSize([p], SIZE)
        gmsh.option.setNumber("Mesh.MeshSizeMax", SIZE)
        gmsh.option.setNumber("Mesh.MeshSizeFromCurvature", 12 if bar else 24)
        gmsh.option.setNumber("Mesh.ElementOrder", 2)
        gmsh.option.setNumber("Mesh.SecondOrderIncomplete", 1)
        gmsh.model.mesh.generate(3 if volumes else 2)
        tags, at, _ = gmsh.model.mesh.getNodes()
        self.nodes = {int(t): tuple(at[3 * i : 3 * i + 3]) for i, t in enumerate(tags)}
        self.plate = self.elements(2, surfaces, 9, range(6))
        self.brackets = [self.elements(2, b, 9, range(6)) for b in brackets]
        self.bar = self.elements(3, volumes, 18, PRISM)
        # pieces of the bar were extruded one by one: their nodes are joined where they lie on one another
        known = {}
        for e in self.bar:
            for i, n in enumerate(e):
                e[i] = known.setdefault(tuple(round(c, 5) for c in self.nodes[n]), n)
        gmsh.finalize()

    def polygon(self, corners):
        points = [self.occ.addPoint(*p) for p in corners]
        lines = [self.occ.addLine(p, points[(i + 1) % len(points)]) for i, p in enumerate(points)]
        return self.occ.addPlaneSurface([self.occ.addCurveLoop(lines)])

    def disc(self, at, n, r):
        d = self.occ.addDisk(0, 0, 0, r, r)
        axis = cross([0, 0, 1], n)
        s = math.sqrt(dot(axis, axis))
        if s > 1e-9:
            self.occ.rotate([(2, d)], 0, 0, 0, *axis, math.atan2(s, n[2]))
        self.occ.translate([(2, d)], *at)
        return d

    def foot_of(self, case, b):
        up = (case["plate"]["t"] + b["t"]) / 2
        return next(f for f in b["flats"] if all(abs(p[2] - self.z - up) < 1e-3 for p in f))

    def strip_of(self, bar):
        w = bar["width"] / 2
        x, y0, y1 = bar["from"][0], bar["from"][1], bar["to"][1]
        return [[x - w, y0, self.z], [x + w, y0, self.z], [x + w, y1, self.z], [x - w, y1, self.z]]

    def within(self, surface, polygon):
        xs, ys = [p[0] for p in polygon], [p[1] for p in polygon]
        x0, y0, _, x1, y1, _ = self.occ.getBoundingBox(2, surface)
        return min(xs) - 1e-3 < x0 and x1 < max(xs) + 1e-3 and min(ys) - 1e-3 < y0 and y1 < max(ys) + 1e-3

    def elements(self, dim, entities, kind, order):
        out = []
        for tag in entities:
            kinds, _, nodes = gmsh.model.mesh.getElements(dim, tag)
            for k, ns in zip(kinds, nodes):
                assert k == kind, k
                size = len(list(order))
                for i in range(0, len(ns), size):
                    one = [int(x) for x in ns[i : i + size]]
                    out.append([one[j] for j in order])
        return out


def nodes_of(elements):
    return {n for e in elements for n in e}


def solve(case, touch):
    m = Mesh(case)
    at, plate = m.nodes, case["plate"]
    pn, bar = nodes_of(m.plate), nodes_of(m.bar)
    keep = sorted(pn | bar | {n for b in m.brackets for n in nodes_of(b)})
    text = ["*NODE, NSET=NALL"] + ["%d, %.9f, %.9f, %.9f" % ((n,) + at[n]) for n in keep]
    last = 0

    def put(name, kind, elements, section):
        nonlocal last
        text.append("*ELEMENT, TYPE=%s, ELSET=%s" % (kind, name))
        for e in elements:
            last += 1
            text.append(", ".join(map(str, [last] + e)))
        text.append("*MATERIAL, NAME=M%s\n*ELASTIC\n%g, %g" % (name, plate["E"], plate["nu"]))
        text.append(section % (name, name))

    def group(name, nodes):
        ns = sorted(nodes)
        text.append("*NSET, NSET=%s" % name)
        text.extend(", ".join(map(str, ns[i : i + 8])) + "," for i in range(0, len(ns), 8))

    shell = "*SHELL SECTION, ELSET=%%s, MATERIAL=M%%s\n%g"
    put("PLATE", "S6", m.plate, shell % plate["t"])
    for k, (b, elements) in enumerate(zip(case["brackets"], m.brackets)):
        put("B%d" % k, "S6", elements, shell % b["t"])
    if m.bar:
        put("BAR", "C3D15", m.bar, "*SOLID SECTION, ELSET=%s, MATERIAL=M%s")

    def disc(nodes, d, z):
        return [n for n in nodes if abs(at[n][2] - z) < 1e-6 and math.hypot(at[n][0] - d["at"][0], at[n][1] - d["at"][1]) <= 1.001 * d["r"]]

    tied, seats, pairs = [], [], []
    for d in case["discs"]:
        own = disc(pn, d, m.z)
        k = next((i for i, b in enumerate(case["brackets"]) if d["joint"] in b["foot"]), None)
        if k is not None:
            b = case["brackets"][k]
            others, z = nodes_of(m.brackets[k]), m.z + (plate["t"] + b["t"]) / 2
        elif d["joint"].startswith("b"):
            others, z = bar, m.z + plate["t"] / 2
        else:
            seats.append((d["joint"], own))
            continue
        tied.append((d, own + disc(others, d, z)))
        under = {(round(at[n][0], 4), round(at[n][1], 4)): n for n in others if abs(at[n][2] - z) < 1e-6}
        pairs += [(n, under[key]) for n in pn for key in [(round(at[n][0], 4), round(at[n][1], 4))] if key in under]
    rigid = {n for _, ns in tied for n in ns}
    pairs = sorted({p for p in pairs if p[0] not in rigid})
    for b, elements in zip(case["brackets"], m.brackets):
        for s in b["seats"]:
            there = [n for n in nodes_of(elements) if abs(dot(sub(at[n], s["mid"]), s["n"])) < 1e-6 and math.dist(at[n], s["mid"]) <= 1.001 * s["r"]]
            seats.append((s["joint"], there))
    ends = []
    if m.bar:
        middle = m.z + plate["t"] / 2 + case["bar"]["height"] / 2
        for end in ("from", "to"):
            ends.append([n for n in bar if abs(at[n][2] - middle) < 1e-6 and abs(at[n][1] - case["bar"][end][1]) < 1e-6])
    ref = keep[-1] + 1
    for d, _ in tied:
        text.append("*NODE\n%d, %g, %g, %.9f\n%d, %g, %g, %.9f" % ((ref, d["at"][0], d["at"][1], m.z) + (ref + 1, d["at"][0], d["at"][1], m.z)))
        d["ref"] = ref
        ref += 2
    for d, ns in tied:
        group("R" + d["joint"].replace("-", "_"), ns)
        text.append("*RIGID BODY, NSET=R%s, REF NODE=%d, ROT NODE=%d" % (d["joint"].replace("-", "_"), d["ref"], d["ref"] + 1))
    for name, ns in seats:
        group("S" + name.replace("-", "_"), ns)
    text.append("@TOUCH@")
    load, area = {}, 0.0
    for e in m.plate:
        c = [sum(at[n][k] for n in e[:3]) / 3 for k in range(2)]
        if abs(c[0] - case["at"][0]) < PATCH and abs(c[1] - case["at"][1]) < PATCH:
            p, q, r = (at[n] for n in e[:3])
            a = abs((q[0] - p[0]) * (r[1] - p[1]) - (r[0] - p[0]) * (q[1] - p[1])) / 2
            area += a
            for n in e[3:]:
                load[n] = load.get(n, 0) + a / 3
    text.append("*STEP\n*STATIC\n*BOUNDARY")
    text += ["S%s, 1, 6" % name.replace("-", "_") for name, _ in seats]
    for ns in ends:
        text += ["%d, 3, 3" % n for n in ns] + ["%d, 1, 2" % min(ns, key=lambda n: abs(at[n][0]))]
    text.append("*CLOAD")
    text += ["%d, 3, %.9g" % (n, case["force"] * a / area) for n, a in load.items()]
    text.append("*NODE PRINT, NSET=NALL\nU")
    text += ["*NODE PRINT, NSET=S%s\nRF" % name.replace("-", "_") for name, _ in seats]
    text.append("*END STEP")

    closed = set()
    for turn in range(12):
        springs = ["*ELEMENT, TYPE=SPRING2, ELSET=TOUCH"] + ["%d, %d, %d" % (last + 1 + i, a, b) for i, (a, b) in enumerate(sorted(closed))]
        springs.append("*SPRING, ELSET=TOUCH\n3, 3\n%.1f" % TOUCH)
        name = os.path.join(WORK, case["id"].replace(" ", "_"))
        with open(name + ".inp", "w") as f:
            f.write("\n".join(text).replace("@TOUCH@", "\n".join(springs) if closed else "** nothing touches") + "\n")
        subprocess.run(["ccx", name], cwd=WORK, check=True, stdout=subprocess.DEVNULL)
        moves, forces = read(name + ".dat")
        if not touch:
            break
        now = {p for p in pairs if moves[p[1]][2] - moves[p[0]][2] < (1e-9 if p in closed else -1e-7)}
        if now == closed:
            break
        closed = now
    print(case["id"], "touching" if touch else "free", "mostUp %.6f" % max(moves[n][2] for n in pn))
    for name, _ in seats:
        rf = forces["S" + name.replace("-", "_").upper()]
        print("  ", name, [round(sum(r[k] for r in rf), 1) for k in range(3)])


def read(path):
    moves, forces, now = {}, {}, None
    for line in open(path):
        if "displacements" in line:
            now = moves
        elif "forces" in line:
            now = forces.setdefault(line.split("for set ")[1].split()[0].upper(), [])
        else:
            f = line.split()
            if len(f) == 4 and now is moves:
                moves[int(f[0])] = [float(x) for x in f[1:]]
            elif len(f) == 4 and now is not None:
                now.append([float(x) for x in f[1:]])
    return moves, forces


with open(os.path.join(HERE, "assemblies.json")) as f:
    for one in json.load(f)["cases"]:
        if ONLY is None or one["id"] == ONLY:
            for touches in (False, True):
                solve(json.loads(json.dumps(one)), touches)
