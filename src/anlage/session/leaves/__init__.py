"""Every leaf that is typed: its row, its text and steps, the draft that holds it, and what a field offers."""
