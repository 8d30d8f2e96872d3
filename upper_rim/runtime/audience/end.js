// By slot the first that is for them, in each width band; of rows and items those that are not.
const holds = (node) => ([kind, ...told]) => is[kind](...told, node);
const takes = (node) => {
  const [every, some, none] = table.a[node] || [[], [], []];
  return every.every(holds(node)) && !none.some(holds(node)) && (!some[0] || some.some(holds(node)));
};
const out = Object.keys(table.a).filter((node) => !takes(node)), not = new Set(out);
for (const [bands, ...rivals] of table.r) {
  const first = rivals.find((node) => !not.has(node));
  for (const node of rivals) if (node !== first && !not.has(node)) for (const band of bands) out.push(band ? `${node}~${band}` : node);
}
root.dataset.rimOut = out.join(" ");
keep();
