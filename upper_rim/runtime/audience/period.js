// Moments are numbers in the site's zone, and texts in the visitor's, which the browser reads by its own clock.
const between = (at, begins, ends) => (begins < ends ? at >= begins && at < ends : at >= begins || at < ends);
is.period = (begins, ends, yearly, weekdays, from, to, zone) => {
  const parts = {};
  const format = new Intl.DateTimeFormat("en-GB", { timeZone: zone || undefined, hourCycle: "h23", weekday: "short", month: "2-digit", day: "2-digit", hour: "2-digit", minute: "2-digit" });
  for (const { type, value } of format.formatToParts(now)) parts[type] = value;
  const clock = `${parts.hour}:${parts.minute}`;
  let day = "MonTueWedThuFriSatSun".indexOf(parts.weekday) / 3;
  if (from) {
    if (!between(clock, from, to)) return;
    if (to < from && clock < to) day = (day + 6) % 7;
  }
  if (weekdays[0] >= 0 && !weekdays.includes(day)) return;
  if (yearly) return between(`${parts.month}-${parts.day}T${clock}`, begins, ends);
  return !(now < new Date(begins || 0)) && !(ends && now >= new Date(ends));
};
