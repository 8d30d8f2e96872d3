"""What is found in pages and files as they came."""
