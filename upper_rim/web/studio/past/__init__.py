"""What was done to a site, and ways back."""
