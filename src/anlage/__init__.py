"""Anlage: welding procedures, stated once."""

__version__ = "0.1.0"
