#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Breaks the core one small piece at a time and asks whether any test notices.

    tools/mutate.py FOLDER_OR_FILE... [--count 60] [--seed 1] [--tests FILTER] [--jobs 2]

Works in a copy of what is committed under build/mutate, never in the tree itself. Each mutant is one change of
one line: a sign, a comparison, a factor, a min for a max, a sine for a cosine, a condition held true or false, a
statement left out. It is noticed where it does not compile, or where a test or a reference case fails. Survivors are
printed with their line, to be killed by a test or said to be equal in docs/testing.md.
"""
import argparse
import pathlib
import random
import re
import shutil
import subprocess
import sys
import tempfile
import time

ROOT = pathlib.Path(__file__).resolve().parent.parent

RULES = [
    (r" \+ ", " - "), (r" - ", " + "), (r" \* ", " / "), (r" / ", " * "),
    (r" < ", " > "), (r" > ", " < "), (r" <= ", " > "), (r" >= ", " < "), (r" == ", " != "), (r" != ", " == "),
    (r" && ", " || "), (r" \|\| ", " && "),
    (r"std::min\(", "std::max("), (r"std::max\(", "std::min("),
    (r"std::sin\(", "std::cos("), (r"std::cos\(", "std::sin("),
    (r"\bif \(", "if (true || "), (r"\bif \(", "if (false && "),
    (r"(?<![\w.])2 \* ", "3 * "), (r"(?<![\w.])0\.5\b", "0.6"), (r"return -", "return "),
    (r"(?<=[(\s])-(?=[a-z])", ""), (r" \+= ", " -= "), (r" -= ", " += "), (r"\btrue\b", "false"), (r"\bfalse\b", "true"),
]
STATEMENT = re.compile(r"^\s+[\w.\[\]>\-]+(\.\w+\(.*\)| [+\-*]?= .*);$")


def candidates(path):
    """Every (line, text of the mutant, what was done) of a file that is code."""
    found = []
    for n, line in enumerate(path.read_text().split("\n")):
        code = line.split("//")[0]
        if not code.strip() or code.lstrip().startswith(("#", "case ", "template", "static_assert")):
            continue
        bare = re.sub(r'"(\\.|[^"\\])*"', lambda m: '"' * len(m.group()), code)  # words are not code
        for pattern, instead in RULES:
            for m in re.finditer(pattern, bare):
                found.append((n, code[: m.start()] + instead + code[m.end():], f"{m.group().strip()} -> {instead.strip()}"))
        if STATEMENT.match(bare) and "const " not in bare and "auto " not in bare:
            found.append((n, "", "left out"))
    return found


def mirror(source, target):
    """Makes a folder like another, touching only what differs, so that little is built again."""
    wanted = {f.relative_to(source) for f in source.rglob("*") if f.is_file()}
    for there in [f for f in target.rglob("*") if f.is_file()]:
        if there.relative_to(target) not in wanted:
            there.unlink()
    for f in wanted:
        to = target / f
        if not to.exists() or to.read_bytes() != (source / f).read_bytes():
            to.parent.mkdir(parents=True, exist_ok=True)
            shutil.copy(source / f, to)


def run(command, cwd, limit):
    try:
        return subprocess.run(command, cwd=cwd, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, timeout=limit).returncode
    except subprocess.TimeoutExpired:
        return -1


def main():
    ask = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    ask.add_argument("paths", nargs="+", type=pathlib.Path)
    ask.add_argument("--count", type=int, default=60, help="mutants of each folder or file")
    ask.add_argument("--seed", type=int, default=1)
    ask.add_argument("--tests", default="~[random]", help="which core tests are asked")
    ask.add_argument("--jobs", default="2")
    a = ask.parse_args()

    copy = ROOT / "build" / "mutate"
    copy.mkdir(parents=True, exist_ok=True)
    # What is committed: the tree itself may be worked on meanwhile.
    with tempfile.TemporaryDirectory() as fresh:
        subprocess.run(f"git archive HEAD | tar -x -C {fresh}", cwd=ROOT, shell=True, check=True)
        for part in ("src", "tests", "cmake", "data", "docs", "bench"):
            mirror(pathlib.Path(fresh) / part, copy / part)
        for part in ("CMakeLists.txt", "CMakePresets.json"):
            here = pathlib.Path(fresh) / part
            if not (copy / part).exists() or (copy / part).read_text() != here.read_text():
                shutil.copy(here, copy / part)
    build = copy / "build"
    if not (build / "build.ninja").exists():
        # As the check builds it: the layers are shared libraries, so that a mutant is one object and one library.
        subprocess.run(["cmake", "-S", copy, "-B", build, "-G", "Ninja", "-DKRANICH_APP=OFF", "-DKRANICH_BENCH=OFF",
                        "-DKRANICH_TOGETHER=ON", "-DCMAKE_BUILD_TYPE=RelWithDebInfo",
                        "-DCMAKE_CXX_FLAGS_RELWITHDEBINFO=-O1 -g0"], check=True, stdout=subprocess.DEVNULL)
    make = ["ninja", "-C", str(build), "-j", a.jobs, "core_tests", "reference_cases"]
    tests = [str(build / "tests" / "core_tests"), a.tests, "--abort", "--filenames-as-tags"]
    cases = [str(build / "tests" / "reference_cases")]
    if run(make, copy, 3600) != 0:
        sys.exit("the tree as it is does not build: mend that first")
    # A mutant that never ends is noticed; one whose tests are only slow must not pass for that.
    began = time.monotonic()
    if run(tests, copy, 1800) != 0 or run(cases, copy, 300) != 0:
        sys.exit("the tests of the tree as it is fail: mend that first")
    limit = 30 + 3 * (time.monotonic() - began)

    for path in a.paths:
        survivors, noticed, not_built = survivors_of(copy, path.resolve().relative_to(ROOT), a, make, tests, cases, limit)
        print(f"{path}: {noticed} of {noticed + survivors} noticed, {not_built} more did not compile", flush=True)


def survivors_of(copy, path, a, make, tests, cases, limit):
    """Tries the mutants of one folder or file; prints those that survive as they are found, returns the numbers."""
    files = sorted((copy / path).rglob("*.cpp")) if (copy / path).is_dir() else [copy / path]
    mutants = [(f, *c) for f in files for c in candidates(f)]
    random.Random(a.seed).shuffle(mutants)
    survivors, noticed, not_built = 0, 0, 0
    for target, n, text, what in mutants:
        if noticed + survivors >= a.count:
            break
        whole = target.read_text()
        lines = whole.split("\n")
        lines[n] = text
        target.write_text("\n".join(lines))
        if run(make, copy, 900) != 0:
            not_built += 1
        elif run(tests, copy, limit) != 0 or run(cases, copy, limit) != 0:
            noticed += 1
        else:
            survivors += 1
            print(f"survives: {target.relative_to(copy)}:{n + 1}: {what}: {whole.split(chr(10))[n].strip()}", flush=True)
        target.write_text(whole)
    return survivors, noticed, not_built


if __name__ == "__main__":
    main()
