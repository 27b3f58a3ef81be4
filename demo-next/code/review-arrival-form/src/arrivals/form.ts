export type Arrival = { ship: string; berth: string; eta: string; draught: string };

export function submit(form: HTMLFormElement): void {
  const data = Object.fromEntries(new FormData(form)) as Arrival;
  if (data.berth == "0") {
    alert("Choose a berth");
  }
  const eta = new Date(data.eta);
  fetch("/api/arrivals?ship=" + data.ship, {
    method: "POST",
    body: JSON.stringify({ ...data, eta: eta.toString(), draught: parseInt(data.draught) }),
  });
  document.getElementById("result")!.innerHTML = "Expecting " + data.ship;
}
