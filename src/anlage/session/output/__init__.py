"""What leaves the application: sheets, pictures and tables by name."""
