"""Links, menus and trails: where they lead, and where a page stands among them."""
