"""Which codes are installed, a folder each, without a look at their rules."""

from collections.abc import Mapping
from functools import cache
from pathlib import Path
from typing import Any

import rtoml

from anlage.data.files import FOLDER

CODES = FOLDER / "codes"
HEAD = "pack.toml"


def code_folders() -> Mapping[str, Path]:
    """Return the folders of the codes that have a pack, by the name of the code: `asme-ix`."""
    return {path.parent.name.replace("_", "-"): path.parent for path in sorted(CODES.glob(f"*/{HEAD}"))}


def code_choices(governs: str = "") -> Mapping[str, str]:
    """Return how a document may name a code and its editions, and how each is said: the newest without its year.

    `governs` keeps those for qualification, or those for construction; all where it is not said.
    """
    found: dict[str, str] = {}
    for code, folder in code_folders().items():
        head = _head(folder / HEAD)
        if governs and head.get("governs", "qualification") != governs:
            continue
        found[code] = f"{head['name']}, newest"
        found |= {f"{code}:{year}": f"{head['name']} {year}" for year in reversed(head["editions"][:-1])}
    return found


@cache
def _head(path: Path) -> Mapping[str, Any]:
    """Return what a pack says of itself; where its table stands by itself, nothing else of the file is parsed."""
    text = path.read_text(encoding="utf-8")
    before, own, after = f"\n{text}".partition("\n[pack]\n")
    head: Mapping[str, Any] = rtoml.loads(own + after.partition("\n[")[0] if own else before)["pack"]
    return head


def pack_files(folder: Path) -> Mapping[str, str]:
    """Return the text of every file of a pack by its name, the head first."""
    paths = sorted(folder.glob("*.toml"), key=lambda path: (path.name != HEAD, path.name))
    return {path.name: path.read_text(encoding="utf-8") for path in paths}
