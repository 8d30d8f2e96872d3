"""Fonts and faces, what they measure, and the sizes that text comes in."""
