// Who wants less data tells it in another way where the browser does not know the query (Save-Data).
is.prefers = (query) => matchMedia(query).matches || (/data/.test(query) && navigator.connection?.saveData);
