"""Nullah: what to cut next, to what size, out of which bit of which board, with which settings."""
