"""What a surveyed board can still give: the thickest slab, the forecast."""
