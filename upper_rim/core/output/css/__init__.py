"""The published style sheet."""
