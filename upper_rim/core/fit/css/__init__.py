"""Boxes as the CSS specifications lay them out, a module for each chapter; lengths that grow with the viewport."""
