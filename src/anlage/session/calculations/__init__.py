"""The calculations of command line and window, a file each: its name is the calculation's.

Every file has `KEYS`, the keys it takes, and `answer`, which reads them and answers; the formulas are in `core`.
"""
