is.prefers = (query) => matchMedia(query).matches;
