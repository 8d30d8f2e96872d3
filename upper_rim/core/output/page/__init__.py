"""What stands on a page, and the one composer."""
