"""Upper Rim."""

VERSION = "0.1.0"
