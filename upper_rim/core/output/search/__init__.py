"""The search of the published pages."""
