#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Layers see what is before them, never what is after: every include of the tree is read. layers.py TREE"""
import pathlib
import re
import sys

ROOT = pathlib.Path(sys.argv[1]) / "src"
# Stations stand beside one another: one may use an earlier one.
ORDER = ["base", "model", "motion", "force", "weigh", "place", "stance", "spring", "leg", "swing", "drive", "doors",
         "sequence", "logic", "circuit", "steer", "assess", "start", "tasks",
         "shop", "io"]
faults = []
read = 0
for file in sorted(ROOT.rglob("*.h")) + sorted(ROOT.rglob("*.cpp")):
    parts = file.relative_to(ROOT).parts
    for include in re.findall(r'^#include [<"]([^>"]+)[>"]', file.read_text(), re.M):
        read += 1
        if parts[0] == "core":
            if include.startswith(("app/", "cli/", "bench_device/", "Q")):
                faults.append(f"{file}: the core knows nothing of {include}")
            inside = re.match(r"core/(\w+)/", include)
            if inside and ORDER.index(inside[1]) > ORDER.index(parts[1]):
                faults.append(f"{file}: {parts[1]} stands before {inside[1]}")
        elif parts[0] != "app" and include.startswith("app/"):
            faults.append(f"{file}: only the application knows {include}")
print("\n".join(faults))
sys.exit(1 if faults or read < 500 else 0)
