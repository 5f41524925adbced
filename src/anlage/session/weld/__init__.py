"""The weld of a procedure: its pictures, beads and figures, what to mind of its joint."""
