"""Killed while somebody types: at most the last second is lost, and no revision."""

import itertools
import json
import multiprocessing
import random
import threading
import time
from collections import Counter
from multiprocessing.connection import Connection
from pathlib import Path

from anlage.store import Draft, Saver, create_works, open_works

NOW = "2026-03-02T08:00:00Z"
LOST_AT_MOST_S = 1.0
EDITED, SAVED = "edited", "saved"


def _edit_until_killed(path: Path, document_id: str, first: int, report: Connection) -> None:
    """Edit a draft for ever, tell each edit before it is put and once it is saved; issue a revision now and then."""
    works = open_works(path)
    saver = Saver(lambda _faults: None)
    telling = threading.Lock()

    def tell(what: str, n: int) -> None:
        with telling:
            report.send((what, n, time.monotonic()))

    def save(draft: Draft, n: int) -> None:
        works.save_draft(document_id, draft, now=NOW)
        tell(SAVED, n)

    pause = threading.Event()
    for n in itertools.count(first):
        tell(EDITED, n)
        draft = Draft(json.dumps({"edit": n, "filling": "x" * 5000}), {"passes/p1/current_a": f"{n} A.."})
        saver.put(document_id, lambda draft=draft, n=n: save(draft, n))  # type: ignore[misc]
        if n % 25 == 0:
            works.issue(document_id, draft.body, author="A. Maker", now=NOW)
        pause.wait(0.005)


def kill(seed: int, kills: int, folder: Path) -> tuple[Counter[str], float]:
    """Return what came of so many kills, and the longest time whose typing was lost [s].

    Parameters
    ----------
    seed : of the dice
    kills : how often
    folder : where the works file is made
    """
    path, found, longest = folder / "killed.anlage", Counter[str](), 0.0
    with create_works(path) as works:
        document_id = works.add("anlage-wps", '{"edit": 0}', now=NOW)
    dice, forks = random.Random(seed), multiprocessing.get_context("fork")
    first, issued = 1, 0
    for number in range(kills):
        edits_before = dice.randrange(450, 600) if number % 10 == 0 else dice.randrange(1, 60)  # some past 2 s
        ours, theirs = forks.Pipe(duplex=False)
        child = forks.Process(target=_edit_until_killed, args=(path, document_id, first, theirs))
        child.start()
        told = tuple(ours.recv() for _ in range(edits_before))
        child.kill()
        killed = time.monotonic()
        child.join()
        theirs.close()
        edits = {n: moment for what, n, moment in told if what == EDITED}
        with open_works(path) as works:
            saved = json.loads(works.draft(document_id).body)["edit"]
            longest = max([longest, *(killed - moment for n, moment in edits.items() if n > saved)])
            found["killed while typing"] += 1
            found["killed after a save"] += any(what == SAVED for what, _, _ in told)
            found["FAULT what was told saved is lost"] += any(n > saved for what, n, _ in told if what == SAVED)
            found["FAULT the chain does not hold"] += works.verify() != ()
            revisions = works.revisions(document_id)
            found["FAULT a revision is lost"] += len(revisions) < issued
        first, issued = max(edits) + 1, len(revisions)
    found["revisions issued meanwhile"] = issued
    return +found, longest
