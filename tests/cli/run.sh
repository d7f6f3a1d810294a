#!/bin/sh
# SPDX-License-Identifier: GPL-3.0-or-later
# The command line tool as a user calls it: outputs, exit codes, the generated documentation.
set -u
cli=$1 tree=$2 bench=$3
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
bad=0
expect() {  # exit code wanted, what it is about, command ...
  want=$1 about=$2
  shift 2
  "$@" >"$work/out" 2>"$work/err"
  got=$?
  [ "$got" = "$want" ] || { echo "FAILED $about: exit $got instead of $want"; cat "$work/err"; bad=1; }
}
has() { grep -qF -- "$1" "$work/out" "$work/err" || { echo "FAILED: no “$1” in the answer"; bad=1; }; }

expect 1 "a demo with defects" "$cli" assess "$tree/data/demo/dunnock.kranich"
has "Nose wheel's share"
expect 1 "cures" "$cli" assess --cures "$tree/data/demo/dunnock.kranich"
has "Main wheels forward by"
has "Nose leg shorter by"
expect 1 "json" "$cli" assess --json "$tree/data/demo/redshank.kranich"
has '"measure": "place.axle_ahead"'
/usr/bin/python3 -c 'import json,sys; d=json.load(open(sys.argv[1])); assert all(k in f for f in d["findings"] for k in ("measure","value","unit","limit","margin","verdict","loading","state"))' "$work/out" || bad=1
expect 1 "cures as json" "$cli" assess --json --cures "$tree/data/demo/dunnock.kranich"
/usr/bin/python3 -c 'import json,sys
d=json.load(open(sys.argv[1])); c=d["cures"]
assert len(c) > 5
for x in c:
    assert x["changes"] and all(y["by"] != 0 and "." in y["knob"] for y in x["changes"]), x
    assert x["verdict"] in ("tight", "holds") and x["text"][0].isupper(), x
    for p in x["worse"]: assert p["verdict_after"] != p["verdict_before"]
assert any(f["measure"] == x["measure"] for x in c for f in d["findings"])' "$work/out" || { echo "FAILED: cures as json"; bad=1; }
# Make it hold: the best way written, in which nothing fails; nothing to do where nothing does.
expect 0 "hold" "$cli" hold "$tree/data/demo/wheatear.kranich" --write "$work/held.kranich"
has "Main wheels forward by"
expect 0 "what was made to hold holds" "$cli" assess "$work/held.kranich"
expect 0 "nothing to make hold" "$cli" hold "$work/held.kranich"
has "nothing fails"
expect 0 "hold as json" "$cli" hold --json "$tree/data/demo/dunnock.kranich"
/usr/bin/python3 -c 'import json,sys
d=json.load(open(sys.argv[1]))
assert d["ways"] and not d["against"], d
for w in d["ways"]: assert w["changes"] and w["text"][0].isupper(), w' "$work/out" || { echo "FAILED: hold as json"; bad=1; }
# Nothing fails, but something is not known: neither a pass nor a fail.
printf '{"kranich": 3}' >"$work/empty.kranich"
expect 5 "hold of what is not known" "$cli" hold "$work/empty.kranich"
has "lack a number"
expect 5 "what is not known" "$cli" assess --json "$work/empty.kranich"
# An aircraft from answers is whole: nothing fails, nothing is unknown; what to measure next for it.
expect 0 "start" "$cli" start --build model --mass 5 --stands-on "tail wheel" --gear retractable -o "$work/started.kranich"
has "span taken as usual"
expect 0 "what was started holds" "$cli" assess "$work/started.kranich"
expect 0 "next" "$cli" next "$work/started.kranich"
has "scales under every wheel, level. Settles"
expect 0 "next as json" "$cli" next --json "$work/started.kranich"
/usr/bin/python3 -c 'import json,sys
d=json.load(open(sys.argv[1])); a=d["acts"]
assert d["open"] > 10 and len(a) > 5 and all(x["paths"] and x["score"] > 0 for x in a), d' "$work/out" || { echo "FAILED: next as json"; bad=1; }
expect 3 "a start that is refused" "$cli" start --mass 50
has "with 2 seats 350"
expect 3 "a size out of the usual" "$cli" start --mass 640 --seats 2 --span 16
has "--keep keeps it"
expect 0 "kept all the same" "$cli" start --mass 640 --seats 2 --span 16 --keep -o "$work/kept.kranich"
# The steps of the work, with the Book beside the project.
expect 0 "steps" "$cli" steps "$tree/data/demo/dunnock.kranich"
grep -q "Walk the field" "$work/out" && { echo "FAILED: a step that is done is open"; bad=1; }
has "[done, off] nose leg: Whole swing by hand"
expect 0 "all steps as json" "$cli" steps --all --json "$tree/data/demo/dunnock.kranich"
/usr/bin/python3 -c 'import json,sys
d=json.load(open(sys.argv[1])); s=d["steps"]
assert len(s) > 80 and d["questions"]
states={x["state"] for x in s}
assert {"open","done","done, off","tried","waits"} <= states, states
assert all("{" not in x["text"] for x in s)
f=[x for x in s if x["id"]=="swing.sweep" and x["for"]=="third"][0]["readings"][0]
assert f["unit"]=="m" and abs(f["foretold"]+0.010)<1e-3 and f["lower"]<f["foretold"]<f["upper"], f' "$work/out" || { echo "FAILED: steps as json"; bad=1; }
expect 0 "steps of nothing" "$cli" steps "$work/empty.kranich"
has "Which legs does it stand on?"
"$cli" steps-table | cmp -s - "$tree/docs/steps.md" || { echo "FAILED: docs/steps.md is not what steps-table prints"; bad=1; }
# The plan handed on.
expect 0 "sequence" "$cli" sequence "$tree/data/demo/redshank.kranich"
has "selector,channel,actor,name,moves,start_s,duration_s,latest_end_s,ends_at,direction"
expect 0 "sequence as json" "$cli" sequence --json "$tree/data/demo/redshank.kranich"
/usr/bin/python3 -c 'import json,sys
d=json.load(open(sys.argv[1])); assert d["kranich_sequence"]==1 and d["up"] and d["down"]
for m in d["up"]+d["down"]: assert m["start_s"]>=0 and m["latest_end_s"]>=m["start_s"]+m["duration_s"]-2e-3, m' "$work/out" || { echo "FAILED: sequence as json"; bad=1; }
expect 0 "wiring" "$cli" sequence --wiring "$tree/data/demo/redshank.kranich"
has "box,output,goes_to,lead,remark"
expect 3 "wiring as json" "$cli" sequence --wiring --json "$tree/data/demo/redshank.kranich"
expect 2 "sequence of nothing" "$cli" sequence "$work/none.kranich"
expect 3 "a sequencer with a wrong factor" "$bench" sequencer --slow 2=fast
has "must be ACTOR=FACTOR from 0.1 to 10"
expect 2 "a servo tester of a leg without a servo" "$bench" servo --project "$tree/data/demo/dunnock.kranich" --leg main
has "needs a drive that is a servo"
expect 2 "a servo tester of no leg" "$bench" servo --project "$tree/data/demo/redshank.kranich" --leg tail
has "needs a leg of that id"
expect 1 "csv" "$cli" assess --csv "$tree/data/demo/redshank.kranich"
has "measure,title,subject"
expect 0 "validate" "$cli" validate "$tree/data/demo/redshank.kranich"
# A name that would clear the terminal is printed without what does so.
sed 's/"name": "Redshank"/"name": "Red\\u001b[2J\\u202eshank"/' "$tree/data/demo/redshank.kranich" >"$work/steers.kranich"
expect 0 "a name that steers" "$cli" validate "$work/steers.kranich"
has "Red[2Jshank"
if grep -q "$(printf '\033')" "$work/out"; then echo "FAILED: a control character was printed"; bad=1; fi
printf '{"kranich": 3, "airframe": {"wing": {"spam_m": 9}}, "own_limits": [{"measure": "place.tipback"}]}' >"$work/slips.kranich"
expect 0 "slips" "$cli" validate "$work/slips.kranich"
has '/airframe/wing/spam_m: is no key of this place; "span_m" comes nearest'
has '/own_limits/0/measure: "place.tipback" is no measure'
printf '{"kranich": 1, "units": "parsec"}' >"$work/bad.kranich"
expect 2 "a fault" "$cli" validate "$work/bad.kranich"
has '/units: must be one of "metric", "inch", is "parsec"'
expect 2 "no file" "$cli" assess "$work/none.kranich"
expect 3 "wrong call" "$cli" assess
expect 3 "no command" "$cli"
expect 0 "help" "$cli" --help
has "Exit codes"
expect 0 "convert" "$cli" convert-units "$tree/data/demo/dunnock.kranich" inch -o "$work/inch.kranich"
"$cli" assess --json "$tree/data/demo/dunnock.kranich" >"$work/metric.json"
"$cli" assess --json "$work/inch.kranich" >"$work/inch.json"
cmp -s "$work/metric.json" "$work/inch.json" || { echo "FAILED: inch and metric projects differ in SI"; bad=1; }
expect 4 "cannot write" "$cli" convert-units "$tree/data/demo/dunnock.kranich" inch -o /no/such/place/x.kranich
expect 0 "sheets" "$cli" sheets "$tree/data/demo/wheatear.kranich" "$work/sheets"
has "jig.svg"
[ -s "$work/sheets/cope-main-rear-leg.dxf" ] || { echo "FAILED: no cope template"; bad=1; }
expect 4 "sheets nowhere" "$cli" sheets "$tree/data/demo/wheatear.kranich" "$work/bad.kranich/folder"
expect 2 "sheets of nothing" "$cli" sheets "$work/none.kranich" "$work/sheets"
expect 0 "a recorded drop" "$bench" rig --project "$tree/data/demo/redshank.kranich" --height 0.2 --csv "$work/drop.csv"
[ "$(head -n 1 "$work/drop.csv")" = "t_s,acceleration_m_per_s2,stroke_m" ] || { echo "FAILED: the recording's columns"; bad=1; }
[ "$(wc -l <"$work/drop.csv")" -gt 400 ] || { echo "FAILED: the recording is short"; bad=1; }
expect 2 "a rig without a leg to drop" "$bench" rig --project "$tree/data/demo/redshank.kranich" --leg third --csv "$work/tail.csv"
has "lacks something for a drop"
expect 2 "a rig with a faulty project" "$bench" rig --project "$work/bad.kranich" --csv "$work/x.csv"
expect 4 "a recording nowhere" "$bench" rig --project "$tree/data/demo/redshank.kranich" --csv "$work/bad.kranich/x.csv"
expect 0 "measures" "$cli" measures
cmp -s "$work/out" "$tree/docs/measures.md" || { echo "FAILED: docs/measures.md is not what the registry says; run kranich-cli measures > docs/measures.md"; bad=1; }
[ $bad = 0 ] && echo "command line: all as documented"
exit $bad
