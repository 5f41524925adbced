"""The tables that ship with Anlage: this layer finds the files, `core` reads their text."""

from anlage.data.tables import catalogue, efficiencies, run_out_factors, unit_table, vocabulary

__all__ = ["catalogue", "efficiencies", "run_out_factors", "unit_table", "vocabulary"]
