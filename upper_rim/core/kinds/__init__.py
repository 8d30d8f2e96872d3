"""What only one kind of thing knows, each kind in one module."""
