"""What is found about the parts of a site, each by itself."""
