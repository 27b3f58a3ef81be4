import { useQuery } from "@tanstack/react-query";
import { NavLink } from "react-router";
import { classes } from "../../ui/classes";
import { useStudy } from "../study";
import { followsOfStudy } from "./api";

const VIEWS = [
  { path: "", name: "Outcome" },
  { path: "/standings", name: "Standings" },
  { path: "/how", name: "Why" },
  { path: "/prompts", name: "By prompt" },
  { path: "/traits", name: "Good at, bad at" },
  { path: "/work", name: "Does it work" },
  { path: "/trials", name: "Trials" },
  { path: "/costs", name: "Cost and time" },
  { path: "/covers", name: "Coverage" },
  { path: "/expected", name: "Expected" },
  { path: "/since", name: "Since the last" },
  { path: "/what-if", name: "What if" },
  { path: "/memo", name: "Memo" },
];

/** The views of the recommendation, to switch between. */
export function Views() {
  const study = useStudy();
  const follows = useQuery(followsOfStudy(study.id));
  const shown = VIEWS.filter((v) => v.path !== "/since" || follows.data?.title !== undefined);
  return (
    <nav aria-label="Views of the recommendation" className="mb-4 border-b border-rule print:hidden">
      <ul className="flex flex-wrap gap-x-4 text-sm">
        {shown.map((view) => (
          <li key={view.path}>
            <NavLink
              to={`/studies/${study.id}/recommendation${view.path}`}
              end={view.path === ""}
              className={({ isActive }) =>
                classes(
                  "block border-b-2 pt-0.5 pb-1.5",
                  isActive ? "border-heather font-semibold" : "border-transparent text-ink-soft hover:text-ink",
                )
              }
            >
              {view.name}
            </NavLink>
          </li>
        ))}
      </ul>
    </nav>
  );
}
