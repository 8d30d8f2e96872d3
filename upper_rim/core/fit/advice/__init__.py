"""What would mend a row, and what else there is to say of it."""
