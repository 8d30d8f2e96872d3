const came = (() => {
  let host = "";
  try { host = new URL(document.referrer).hostname; } catch {}
  const given = [...new URLSearchParams(location.search)];
  return host && host !== location.hostname || given.length ? [host === location.hostname ? "" : host, given, now, kept.n] : kept.f;
})();
kept.f = came;
is["came-from"] = (hosts, name, value, days) => {
  if (!came || (came[3] !== kept.n && !(now - came[2] < (days + 1) * DAY_MS && days))) return;
  return hosts.some((one) => `.${came[0]}`.endsWith(`.${one}`)) || came[1].some(([told, said]) => told === name && (!value || said === value));
};
