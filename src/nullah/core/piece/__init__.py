"""Parts, what joins to what, and the forms pieces take."""
