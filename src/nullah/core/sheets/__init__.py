"""Sheets of paper for the bench: pages as drawings in paper millimetres."""
