#!/usr/bin/env python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""What Kranich says, from its sources, against a catalogue of another language.

    tools/strings.py                      every sentence, one a line, as in a catalogue
    tools/strings.py data/tongues/de.po   those it lacks, those it has in vain; ends with 1 where there are any

Sentences are: what stands in tr(…) or is marked for it (…NOOP) in src/app, and in src/core every literal that is put into a text: all that hold a
blank or begin with a capital letter, the words of choices, and what is said by name (Text, say). Left out are the
folders whose words are not texts yet (LATER), and what is no language at all.
"""
import csv
import pathlib
import re
import sys

ROOT = pathlib.Path(__file__).resolve().parent.parent
LITERAL = re.compile(r'"((?:[^"\\]|\\.)*)"')
# Written as plain strings today: sheets, reports of faults, the texts of Bench's table.
NOW = ("src/core/shop/work_sheets.cpp",)  # in folders of LATER, and said in every language already
LATER = ("src/core/shop/", "src/core/io/", "src/core/logic/")
PLAIN = re.compile(r"(fmt::format|std::string|Fault|throw|runtime_error|push_back|append|join|starts_with|ends_with|find|"
                   r"compare|static_assert|locate|_at|root|entry|path)\(\s*$")
# Single words that stand in texts, which nothing tells from an id where they are written.
WORDS = """C_L S·C_Y V_lo V_rot V_s aftmost allowed at bank bar bottomed brakes bump d deceleration energy fails foremost h has
height held incidence largest ledger longest mass noted outputs patch peak pitch run scales shift shortest squash stalled standing
stroke takes tight time time-out track travel used wanted wheelbase span length""".split()
ID = re.compile(r"^[a-z0-9_./:{}<>+*=\-]*$")


def literals(source):
    """(where it begins, where it ends, its text) of each literal; neighbours joined as the compiler joins them."""
    found, i = [], 0
    while i < len(source):
        if source.startswith("//", i):
            i = source.find("\n", i)
            i = len(source) if i < 0 else i
        elif source.startswith('R"', i):
            mark = re.match(r'R"([^(]*)\(', source[i:])
            end = source.find(")" + mark.group(1) + '"', i)
            i = end + len(mark.group(1)) + 2
        elif source[i] == "'":
            char = re.match(r"'(?:[^'\\]|\\.)+'", source[i:])
            i += char.end() if char else 1
        elif source[i] == '"':
            m = LITERAL.match(source, i)
            found.append((i, m.end(), m.group(1)))
            i = m.end()
        else:
            i += 1
    joined = []
    for f in found:
        if joined and not source[joined[-1][1]:f[0]].strip():
            joined[-1] = (joined[-1][0], f[1], joined[-1][2] + f[2])
        else:
            joined.append(f)
    return joined


def of_app(source):
    """In tr("…") and tr(which ? "…" : "…"), and what is marked to be looked up later."""
    said = []
    for a, _, t in literals(source):
        before = source[max(0, a - 160):a]
        called = re.search(r'.*\btr\(([^;]*)$', before, re.S)
        inside = called.group(1) if called else ")"
        depths = [inside[:i].count("(") - inside[:i].count(")") for i in range(len(inside) + 1)]
        chosen = min(depths) >= 0 and re.search(r"[?:]\s*$", inside)
        marked = re.search(r'NOOP\(\s*("QObject",\s*)?$', before) and t != "QObject"
        if t and (not inside.strip() or ((chosen or marked) and re.search("[A-Za-z]", t))):
            said.append(t)
    return said


def of_core(source, every_word):
    source = re.sub(r"#include[^\n]*", "", source)
    said = []
    for a, _, t in literals(source):
        before = source[max(0, a - 60):a]
        named = re.search(r"\b(Text|say)\(\s*$", before)
        language = re.search(r"[A-Za-z]{2}", t) and (" " in t or re.match(r"[A-Z][a-z]", t))
        if not re.search(r"[A-Za-z]", t):
            continue
        if named or (every_word and not t.endswith("_") and "_" not in t) or (
                language and not ID.match(t) and not PLAIN.search(before)):
            said.append(t)
    return said


def of_steps(table):
    """What a builder reads of a line of the table: not its conditions, units and paths."""
    for line in csv.DictReader(table):
        name = re.sub(r" (full|model)$", "", line["id"].partition(".")[2].replace("-", " "))
        yield name[:1].upper() + name[1:]
        yield from (line[column] for column in ("text", "why", "stop") if line[column])
        yield from (name.strip() for name in line["reading"].split(";") if name.strip())
        question, _, sides = line["choice"].partition(":")
        yield from (t.strip() for t in [question, *sides.split("|")] if t.strip())


def sentences():
    """Every sentence once, in the order of the files."""
    all_of_them = {}
    for path in sorted((ROOT / "src/app").rglob("*.cpp")) + sorted((ROOT / "src/app").rglob("*.h")):
        for t in of_app(path.read_text()):
            all_of_them.setdefault(t, str(path.relative_to(ROOT)))
    for path in sorted((ROOT / "src/core").rglob("*.cpp")) + sorted((ROOT / "src/core").rglob("*.h")):
        name = str(path.relative_to(ROOT))
        if name.startswith(LATER) and name not in NOW:
            continue
        for t in of_core(path.read_text(), name.endswith("describe_words.h")):
            all_of_them.setdefault(t, name)
    for t in of_steps((ROOT / "data/steps.csv").open(encoding="utf-8", newline="")):
        all_of_them.setdefault(t, "data/steps.csv")
    for t in WORDS:
        all_of_them.setdefault(t, "single words")
    return all_of_them


def catalogue(path):
    """msgid → msgstr of a .po file, as they stand there."""
    entries, key, which = {}, None, None
    text = {"msgid": "", "msgstr": ""}
    for line in pathlib.Path(path).read_text().splitlines() + ["msgid \"\""]:
        m = re.match(r'(msgid|msgstr) "(.*)"$', line)
        if m:
            if m.group(1) == "msgid":
                if text["msgid"]:
                    entries[text["msgid"]] = text["msgstr"]
                text = {"msgid": m.group(2), "msgstr": ""}
            else:
                text["msgstr"] = m.group(2)
            which = m.group(1)
        elif line.startswith('"') and which:
            text[which] += line[1:-1]
    return entries


def main():
    said = sentences()
    if len(sys.argv) < 2:
        for t in said:
            print(t)
        return 0
    known = {k: v for k, v in catalogue(sys.argv[1]).items() if v}
    lacks = [t for t in said if t not in known]
    vain = [t for t in known if t not in said]
    for t in lacks:
        print(f"lacks ({said[t]}): {t}")
    for t in vain:
        print(f"in vain: {t}")
    return 1 if lacks or vain else 0


if __name__ == "__main__":
    sys.exit(main())
