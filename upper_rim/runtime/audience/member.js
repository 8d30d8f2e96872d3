// The server tells the groups; elsewhere the site's own application does, by an attribute of the root or a cookie.
is.member = (groups) => {
  const told = root.dataset.rimMember ?? (/(?:^|; *)rim-member=([^;]*)/.exec(document.cookie) || [])[1];
  const mine = window.rimVisitor?.groups ?? told?.split(/[ .]+/);
  return mine && (!groups[0] || groups.some((one) => mine.includes(one)));
};
