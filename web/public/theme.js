// Before the first paint: the reader's choice, or the system's.
(function () {
  var choice = localStorage.getItem("mossbank.theme");
  var dark = choice === "dark" || (choice !== "light" && matchMedia("(prefers-color-scheme: dark)").matches);
  document.documentElement.dataset.theme = dark ? "dark" : "light";
})();
