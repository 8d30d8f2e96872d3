// Only a server knows it; where none has told, it is nowhere.
is.region = (regions) => regions.some((one) => `${window.rimVisitor?.region}-`.startsWith(`${one}-`));
