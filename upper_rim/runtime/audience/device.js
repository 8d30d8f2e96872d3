is.device = (pointer, from, to) =>
  (!pointer || matchMedia("(pointer:coarse)").matches === (pointer === "touch")) && screen.width >= from && (!to || screen.width <= to);
