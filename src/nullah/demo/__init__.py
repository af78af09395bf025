"""Sample pieces, boards and measurements, all invented."""
