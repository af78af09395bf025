"""The piece through a year: what swells and shrinks, what binds, rattles or cracks, and the clearance to leave."""
