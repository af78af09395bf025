"""One module for each joint family: layout, limits, drawings."""
