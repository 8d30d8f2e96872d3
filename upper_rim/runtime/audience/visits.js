is.visits = (first, last) => kept.n >= first && (!last || kept.n <= last);
