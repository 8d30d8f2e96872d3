"""HTML that others wrote: read, cut and added to at known places."""
