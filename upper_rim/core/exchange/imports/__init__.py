"""What a file or a text of others brings into a site."""
