"""`anlage verify-pack`: a sound pack answers 0, a faulty one 2 with every fault where it stands."""

import copy
import json
import shutil
from functools import reduce
from operator import getitem
from pathlib import Path
from random import Random

import pytest
import rtoml

from anlage.core.codes import faults_of_pack
from anlage.data.code_packs import pack_names
from anlage.data.installed_codes import CODES, pack_files
from tests.cli.refusals import refusal

YARD = Path(__file__).parents[1] / "fixtures" / "yard_code"


@pytest.mark.parametrize("folder", [YARD, *(head.parent for head in CODES.glob("*/pack.toml"))], ids=lambda f: f.name)
@pytest.mark.parametrize("file", ["", "pack.toml"])
def test_a_sound_pack_has_no_fault(answer, folder, file):
    found = answer("verify-pack", str(folder / file))
    assert found["sound"]
    assert found["rules"] > 0


def test_every_fault_is_told_with_file_and_line(call, tmp_path):
    folder = Path(shutil.copytree(YARD, tmp_path / "yard"))
    rules = (folder / "rules.toml").read_text()
    (folder / "rules.toml").write_text(rules.replace('"position"', '"positoin"', 2).replace("at_least", "atleast"))
    status, found, err = call("verify-pack", str(folder), "--json")
    assert (status, err, found["sound"]) == (2, "", False)
    assert [(fault["where"], fault["mend"]) for fault in found["faults"]] == [
        ("rules.toml line 10", "write at_least"),
        ("rules.toml line 28", "write position"),
    ]
    status, text, _ = call("verify-pack", str(folder))
    assert status == 2
    assert "rules.toml line 28  no variable positoin; write position" in text


def test_a_pack_without_any_head_is_refused_in_one_line(call, tmp_path):
    assert refusal(call, "verify-pack", str(tmp_path)).endswith("name a folder with pack.toml in it, or that file")
    assert "there is no pack" in refusal(call, "verify-pack", str(tmp_path / "nowhere.toml"))


def test_a_file_that_is_no_text_is_refused(call, tmp_path):
    (tmp_path / "pack.toml").write_bytes(b"\xff\xfe")
    assert "is no text; save it as UTF-8" in refusal(call, "verify-pack", str(tmp_path))


TRIED = 60  # places of a file: each has the whole pack read again


def _places(value, at=()):
    """Every place in a table of TOML."""
    for key, each in value.items() if isinstance(value, dict) else enumerate(value) if isinstance(value, list) else ():
        yield (*at, key)
        yield from _places(each, (*at, key))


def _as_toml(value):
    if isinstance(value, dict):
        return "{" + ", ".join(f"{json.dumps(key)} = {_as_toml(each)}" for key, each in value.items()) + "}"
    return f"[{', '.join(map(_as_toml, value))}]" if isinstance(value, list) else json.dumps(value)


@pytest.mark.parametrize("other", [3, "zzz", [], None], ids=["number", "word", "list", "gone"])
@pytest.mark.parametrize("name", ["pack.toml", "rules_essential.toml", "transformation_temperatures.toml"])
def test_whatever_stands_in_a_pack_is_told_and_never_breaks_the_check(name, other):
    """Something else is written at many places of the shipped pack: faults may come, an error of Python may not."""
    files = pack_files(CODES / "asme_ix")
    whole, told = rtoml.loads(files[name]), 0
    places = list(_places(whole))
    for at in Random(f"{name} {other}").sample(places, min(TRIED, len(places))):
        changed = copy.deepcopy(whole)
        around = reduce(getitem, at[:-1], changed)
        if other is None:
            del around[at[-1]]
        else:
            around[at[-1]] = other
        text = "\n".join(f"{key} = {_as_toml(each)}" for key, each in changed.items())
        told += bool(faults_of_pack({**files, name: text}, names=pack_names()))
    assert told
