"""What is found about who is shown what, where."""
