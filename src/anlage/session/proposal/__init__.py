"""What the application proposes where nothing is stated yet."""
