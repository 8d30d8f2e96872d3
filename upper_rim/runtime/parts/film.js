// A film behind a gate plays while it is seen, unless less motion is wanted or somebody has stopped it.
each("[data-rim-film]", (film) => {
  const still = film.nextElementSibling;
  if (matchMedia("(prefers-reduced-motion:reduce)").matches) return void (film.preload = "metadata");
  const play = () => film.play().catch(() => {});
  still.hidden = false;
  still.addEventListener("click", () => {
    const stops = still.ariaPressed !== "true";
    still.ariaPressed = stops;
    stops ? film.pause() : play();
  });
  new IntersectionObserver(([{ isIntersecting }]) => (isIntersecting && still.ariaPressed !== "true" ? play() : film.pause())).observe(film);
});
