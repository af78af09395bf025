"""What is carried to the bench: the cut list."""
