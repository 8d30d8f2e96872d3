"""Texts: in which face, how wide, where they break."""
