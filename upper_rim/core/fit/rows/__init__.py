"""A row at every width: laid out, looked at, swept."""
