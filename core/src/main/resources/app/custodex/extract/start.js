"use strict";
(function () {
  const MOST = 200;
  const index = JSON.parse(document.getElementById("index").textContent);
  const field = document.getElementById("words");
  const found = document.getElementById("found");
  const count = document.getElementById("count");
  // Upper and lower case, and letters with and without accents, are the same.
  const fold = (text) => text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();
  const folded = index.things.map((thing) => fold(thing[3]));
  const row = (thing) => {
    const line = document.createElement("li");
    const head = document.createElement("small");
    head.textContent = thing[1] + (thing[2] ? " · " + thing[2] : "");
    const text = document.createElement("bdi");
    text.textContent = thing[3].length > 600 ? thing[3].slice(0, 600) + "…" : thing[3];
    line.append(head, text);
    const address = index.files[thing[0]];
    if (address) {
      const link = document.createElement("a");
      link.href = address;
      link.textContent = "Open its file";
      line.append(link);
    }
    return line;
  };
  const find = () => {
    const words = fold(field.value).split(/\s+/).filter(Boolean);
    found.replaceChildren();
    if (words.length === 0) {
      count.textContent = index.things.length + " things can be found";
      return;
    }
    let hits = 0;
    const rows = [];
    for (let i = 0; i < folded.length; i++) {
      if (words.every((word) => folded[i].includes(word))) {
        hits++;
        if (rows.length < MOST) {
          rows.push(row(index.things[i]));
        }
      }
    }
    found.append(...rows);
    count.textContent = hits > MOST ? hits + " found; the first " + MOST + " are shown" : hits + " found";
  };
  field.addEventListener("input", find);
  find();
})();
