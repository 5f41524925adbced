"""What is open in the window, its commands, and how it starts."""
