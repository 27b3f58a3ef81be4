const berths = [
  { number: 4, nights: "3 to 6 October" },
  { number: 7, nights: "11 to 12 October" },
];
const list = document.getElementById("berths");
const said = document.getElementById("said");

function show() {
  list.replaceChildren(
    ...berths.map((berth) => {
      const item = document.createElement("li");
      const text = document.createElement("span");
      text.textContent = `Berth ${berth.number}, ${berth.nights}`;
      const button = document.createElement("button");
      button.textContent = `Give up berth ${berth.number}`;
      button.onclick = () => giveUp(berth);
      item.append(text, button);
      return item;
    }),
  );
}

function giveUp(berth) {
  berths.splice(berths.indexOf(berth), 1);
  said.textContent = `Berth ${berth.number} is given up.`;
  show();
}

show();
