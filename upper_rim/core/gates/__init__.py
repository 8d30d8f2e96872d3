"""What stands before a page's content, what a visitor meets next, and why."""
