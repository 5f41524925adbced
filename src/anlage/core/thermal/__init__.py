"""Heat in the joint: before, between and after each pass, and what it does to the metal."""
