"""The proof: the piece is put together before anyone saws, and what would not go is said in words."""
