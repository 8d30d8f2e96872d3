// The present year, where a page was published in an earlier one.
each("[data-rim-year]", (years) => {
  const now = new Date().getFullYear(), first = +years.dataset.rimYear;
  years.textContent = first && first < now ? `${first}–${now}` : now;
});
