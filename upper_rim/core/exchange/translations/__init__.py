"""Texts on their way to translators and back."""
