"""Transient heat conduction in the cross-section: how hot the joint is before each pass, and how long to wait.

Everything here is per millimetre of seam. Lengths are mm, times s, heat J, temperatures °C. NumPy and SciPy are loaded
here and nowhere else in the core.
"""
