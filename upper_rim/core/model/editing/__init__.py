"""Edits: what they are, what a site becomes by them, and why one cannot be."""
