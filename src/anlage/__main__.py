"""`python -m anlage`."""

from anlage.cli.main import entry

if __name__ == "__main__":
    entry()
