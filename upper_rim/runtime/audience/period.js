// Moments are numbers in the site's zone, and texts in the visitor's, which the browser reads by its own clock.
const between = (at, begins, ends) => (begins < ends ? at >= begins && at < ends : at >= begins || at < ends);
is.period = (begins, ends, yearly, weekdays, from, to, zone) => {
  // Swedish writes days and times as ISO 8601 does.
  const wall = new Date(now).toLocaleString("sv", { timeZone: zone || undefined }), clock = wall.slice(11, 16);
  let day = (new Date(wall.slice(0, 10)).getUTCDay() + 6) % 7;
  if (from) {
    if (!between(clock, from, to)) return;
    if (to < from && clock < to) day = (day + 6) % 7;
  }
  if (weekdays[0] >= 0 && !weekdays.includes(day)) return;
  if (yearly) return between(`${wall.slice(5, 10)}T${clock}`, begins, ends);
  return !(now < new Date(begins || 0)) && !(ends && now >= new Date(ends));
};
