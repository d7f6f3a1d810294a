#!/usr/bin/python3
# SPDX-License-Identifier: GPL-3.0-or-later
"""Holds docs/kranich.schema.json against every project that ships, by a validator that is not ours."""
import glob
import json
import sys

import jsonschema

tree = sys.argv[1]
schema = json.load(open(f"{tree}/docs/kranich.schema.json"))
jsonschema.Draft7Validator.check_schema(schema)
validator = jsonschema.Draft7Validator(schema)
files = sorted(glob.glob(f"{tree}/data/**/*.kranich", recursive=True))
assert len(files) >= 2, files
faults = 0
for path in files:
    for error in validator.iter_errors(json.load(open(path))):
        faults += 1
        print(f"{path}: /{'/'.join(map(str, error.absolute_path))}: {error.message}")
# The schema must also be able to say no.
sample = json.load(open(files[0]))
sample["ledger"][0]["mass_kg"] = -3
assert not validator.is_valid(sample), "a negative mass passes the schema"
sample = json.load(open(files[0]))
del sample["kranich"]
assert not validator.is_valid(sample), "a file without its version passes the schema"
print(f"{len(files)} projects, {faults} faults")
sys.exit(1 if faults else 0)
