"""What is wrong or doubtful about a site: computed from the rest of the core, told as data."""
