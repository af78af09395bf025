"""Rough parts out of rough boards: allowances, places, cuts, the search."""
