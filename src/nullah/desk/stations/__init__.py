"""What each station adds to the frame: a row of choices above the bench and what dragging does."""
