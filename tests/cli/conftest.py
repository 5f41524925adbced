"""Commands run in this process, their answers and refusals."""

import json

import pytest

from anlage.cli.main import run


@pytest.fixture
def call(capsys):
    """Run a command line in this process; returns status, the JSON or text printed, and standard error."""

    def ask(*words):
        status = run(list(words))
        out, err = capsys.readouterr()
        return status, json.loads(out) if "--json" in words and out else out, err

    return ask


@pytest.fixture
def answer(call):
    """The JSON of a call that must succeed."""

    def ask(*words):
        status, found, err = call(*words, "--json")
        assert (status, err) == (0, "")
        return found

    return ask
