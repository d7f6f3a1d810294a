#!/usr/bin/python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Reads the sheets that kranich-cli writes with libraries of others: DXF with ezdxf, SVG as XML, and compares what
they say with each other and with the project."""
import json
import math
import pathlib
import subprocess
import sys
import tempfile
import xml.etree.ElementTree as xml

import ezdxf

cli, tree = sys.argv[1], pathlib.Path(sys.argv[2])
svg_name = "{http://www.w3.org/2000/svg}"


def near(a, b, within=1e-3):
    assert math.isclose(a, b, rel_tol=1e-6, abs_tol=within), f"{a} is not {b}"


def read_svg(path):
    root = xml.parse(path).getroot()
    assert root.tag == svg_name + "svg"
    width, height = (float(root.get(k).removesuffix("mm")) for k in ("width", "height"))
    box = [float(v) for v in root.get("viewBox").split()]
    near(box[2], width)  # one unit is one millimetre
    near(box[3], height)
    circles = sorted(float(c.get("r")) for c in root.iter(svg_name + "circle"))
    points = 0
    for shape in list(root.iter(svg_name + "polygon")) + list(root.iter(svg_name + "polyline")):
        for pair in shape.get("points").split():
            x, y = (float(v) for v in pair.split(","))
            assert -1e-6 <= x <= width + 1e-6 and -1e-6 <= y <= height + 1e-6, (path, x, y)
            points += 1
    texts = [t.text for t in root.iter(svg_name + "text")]
    return circles, points, texts


def read_dxf(path):
    drawing = ezdxf.readfile(path)
    errors = drawing.audit().errors
    assert not errors, (path, [str(e.message) for e in errors])
    assert {"cut", "bend", "centre", "mark", "dimension", "letters"} <= {l.dxf.name for l in drawing.layers}
    space = drawing.modelspace()
    circles = sorted(c.dxf.radius for c in space.query("CIRCLE"))
    points = 2 * len(space.query("LINE")) + sum(len(list(p.vertices)) for p in space.query("POLYLINE"))
    return circles, points, [t.dxf.text for t in space.query("TEXT")], space


checked = 0
for project in sorted((tree / "data/demo").glob("*.kranich")):
    design = json.loads(project.read_text())
    with tempfile.TemporaryDirectory() as folder:
        out = subprocess.run([cli, "sheets", project, folder], capture_output=True, text=True, check=True)
        files = [pathlib.Path(l) for l in out.stdout.splitlines() if l.endswith((".svg", ".dxf"))]
        assert files and all(f.exists() for f in files)
        for svg in sorted(pathlib.Path(folder).glob("*.svg")):
            a, b = read_svg(svg), read_dxf(svg.with_suffix(".dxf"))
            assert len(a[0]) == len(b[0])
            for x, y in zip(a[0], b[0]):
                near(x, y)
            assert a[1] == b[1], (svg, a[1], b[1])  # the same lines
            assert any(design["about"]["name"] in t for t in a[2]) and any(design["about"]["name"] in t for t in b[2])
            checked += 1
        # A plate's holes are where the project says, in millimetres.
        for leg in design["gear"]["legs"]:
            for joint in leg.get("joints", []):
                if joint["kind"] != "bolts, rivets or screws":
                    continue
                name = "plate-%s-%s.dxf" % (leg["id"], joint["name"].replace(" ", "-"))
                space = read_dxf(pathlib.Path(folder) / name)[3]
                holes = sorted((c.dxf.center.x, c.dxf.center.y, c.dxf.radius) for c in space.query("CIRCLE"))
                wanted = sorted((1000 * f["u_m"], 1000 * f["v_m"], 500 * f["diameter_m"]) for f in joint["fasteners"])
                assert len(holes) == len(wanted)
                for h, w in zip(holes, wanted):
                    for x, y in zip(h, w):
                        near(x, y)
                checked += 1
assert checked > 20, checked
print(checked, "sheets read by others")
