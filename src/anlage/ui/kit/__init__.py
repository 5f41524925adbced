"""What every part of the window is made of: look, icons, fields bound to a leaf, and what a place is."""
