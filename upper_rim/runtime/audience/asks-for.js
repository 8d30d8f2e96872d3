// RFC 4647, 3.4: the first wanted that is there; the last subtag is taken off, and a single letter before it.
is["asks-for"] = (tags) => {
  for (let tag of navigator.languages)
    for (tag = tag.toLowerCase(); tag; tag = tag.replace(/^[^-]+$|(-[^-])?-[^-]+$/, ""))
      if (table.l.includes(tag)) return tags.some((one) => `${tag}-`.startsWith(`${one}-`));
};
