"""Pure computation: no window, no files, no clock, no network."""
