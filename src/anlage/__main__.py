"""`python -m anlage`."""

from anlage.cli.main import entry

entry()
