"""A drawing on any paper: palettes, type, one painter; PDF, SVG, PNG."""
