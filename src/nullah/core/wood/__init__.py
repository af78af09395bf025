"""Wood as a material: species, movement, moisture."""
