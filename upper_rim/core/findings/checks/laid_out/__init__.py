"""What is found once pieces have been laid out."""
