"""`calc section`: the section model on a section given by hand, from a JSON file."""

import math
import time
from pathlib import Path
from typing import Any

from anlage.core.errors import InputError
from anlage.core.results import Notice, Source
from anlage.core.thermal.section.case import SectionCase, read_case
from anlage.core.thermal.section.metals import heat_table, metal_named
from anlage.core.thermal.section.run import SectionRun
from anlage.core.thermal.section.state import Passed
from anlage.core.thermal.section.tables import HeatTable
from anlage.data.heat_tables import heat_metals
from anlage.data.tables import catalogue
from anlage.session.keyed.answer import Answer, number
from anlage.session.keyed.arguments import Arguments

KEYS = ("file",)
LARGEST_BYTES = 10_000_000
TOLD_EVERY_S = 0.2
MODEL = "finite volumes in the cross-section, checked against Carslaw and Jaeger 1959"


def named_table(name: str) -> HeatTable:
    """Return the heat table of a metal: by its name in the table of heats, else by its family in the catalogue.

    Raises
    ------
    UnknownNameError : neither has it
    """
    metal = catalogue().base_metal(name)
    return heat_table(metal_named(name if metal is None else metal.family, heat_metals()))


def answer(arguments: Arguments) -> Answer:
    """Answer `calc section`."""
    path = Path(arguments.text("file"))
    case = read_case(_text(path), where=path.name)
    begun = told = time.perf_counter()
    run = SectionRun(case, named_table)
    hottest = dict.fromkeys(case.probes, -math.inf)
    for progress in run.advance():
        hottest = {name: max(most, progress.probes[name]) for name, most in hottest.items()}
        if time.perf_counter() - told > TOLD_EVERY_S:
            told = time.perf_counter()
            arguments.tell(f"pass {progress.passes} of {len(case.sources)}, {progress.time_s:.0f} s")
    took = time.perf_counter() - begun
    books = run.state.books
    values: dict[str, Any] = {
        "probes": {name: _probe(run, name) for name in case.probes},
        "sources": [_source(each) for each in run.state.passed],
        "ledger": {
            "supplied_j_mm": number(books.supplied),
            "stored_j_mm": number(run.stored),
            "lost_j_mm": number(books.lost),
            "along_j_mm": number(books.along),
            "residual_j_mm": run.residual,
            "lost_trapezium_j_mm": number(books.lost_trapezium),
        },
        "wait_total_s": number(sum(each.wait_s or 0.0 for each in run.state.passed)),
        "elapsed_s": number(run.state.time),
        "mean_c": number(run.mean_c),
        "metal_area_mm2": number(run.metal_area_mm2),
        "seam_factor": number(run.seam_factor),
        "cells": run.cells,
        "steps": run.state.steps,
        "rejected": run.state.rejected,
        "run_s": number(took),
    }
    return Answer(values, _lines(run, values), _sources(case), _notices(run, hottest))


def _text(path: Path) -> str:
    try:
        if path.stat().st_size > LARGEST_BYTES:
            raise InputError("is too large for a case", where=path.name, mend="name a file of 10 MB at most")
        return path.read_text(encoding="utf-8-sig")
    except (OSError, UnicodeDecodeError) as fault:
        raise InputError(f"cannot be read: {fault}", where=str(path), mend="name a JSON file") from fault


def _probe(run: SectionRun, name: str) -> dict[str, Any]:
    place = run.places()[name]
    return {
        "read_at_mm": None if place is None else [number(value) for value in place],
        "time_s": [number(value) for value in run.state.times],
        "temperature_c": [number(value) for value in run.state.readings[name]],
    }


def _source(passed: Passed) -> dict[str, Any]:
    found: dict[str, Any] = {
        "id": passed.id,
        "start_s": None if passed.start_s is None else number(passed.start_s),
        "wait_s": None if passed.wait_s is None else number(passed.wait_s),
        "before_c": {name: number(value) for name, value in passed.before_c.items()},
        "peak_c": {name: number(track.peak) for name, track in passed.tracks.items()},
    }
    found |= {"what": f"pass {passed.id}", "source": MODEL, "confidence": "H"}
    cooled = {name: number(t.cooled_s) for name, t in passed.tracks.items() if t.cooled_s is not None}
    return found | ({"raw_800_500_s": cooled} if cooled else {})


def _lines(run: SectionRun, values: dict[str, Any]) -> list[tuple[str, str]]:
    lines = [
        (
            f"pass {each.id}",
            "never" if each.start_s is None else f"at {each.start_s:.0f} s after {each.wait_s:.0f} s of waiting",
        )
        for each in run.state.passed
    ]
    lines += [(f"probe {name}", _reading(value, run.state.time)) for name, value in run.probes().items()]
    lines.append(("mean", f"{run.mean_c:.1f} °C"))
    ledger = values["ledger"]
    for name in ("supplied", "stored", "lost", "along"):
        lines.append((name, f"{ledger[f'{name}_j_mm']:.1f} J/mm"))
    lines.append(("cells, steps", f"{run.cells}, {run.state.steps} and {run.state.rejected} again"))
    return lines


def _reading(celsius: float, seconds: float) -> str:
    return "no metal" if math.isnan(celsius) else f"{celsius:.1f} °C at {seconds:.0f} s"


def _sources(case: SectionCase) -> list[Source]:
    found = [Source("conduction", MODEL, "H")]
    for name, metal in case.metals.items():
        if metal.catalogue is not None:
            own = catalogue().base_metal(metal.catalogue)
            row = metal_named(metal.catalogue if own is None else own.family, heat_metals())
            found.append(Source(f"metal {name}", row.source, row.confidence))
    return found


def _notices(run: SectionRun, hottest: dict[str, float]) -> list[Notice]:
    notices = []
    solidus = min(table.solidus_c for table in run.build.tables.metals)
    molten = [name for name, most in hottest.items() if most > solidus]
    if molten:
        text = "over the solidus no temperature is predicted, nor the first seconds beside the pool"
        notices.append(Notice("section.molten", f"probes.{molten[0]}", f"{', '.join(molten)}: {text}"))
    for each in run.state.passed:
        if each.start_s is None:
            text = "its probe does not fall so low within 24 h: no waiting time"
            notices.append(Notice("section.never", f"source {each.id}", text))
    if run.build.tables.metals and math.isinf(solidus) and max(hottest.values(), default=0.0) > 1400:
        notices.append(Notice("section.molten", "probes", "over 1400 °C no temperature is predicted"))
    return notices
