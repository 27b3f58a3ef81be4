import { NavLink, Outlet } from "react-router";
import { classes } from "../../ui/classes";

const PAGES = [
  { to: "/administration", label: "Accounts", end: true },
  { to: "/administration/record", label: "What was done", end: false },
];

/** What an administrator looks after, a page each. */
export function AdministrationLayout() {
  return (
    <main className="mx-auto w-full max-w-5xl px-6 py-8">
      <nav aria-label="What is looked after" className="mb-5 flex gap-5 border-b border-rule print:hidden">
        {PAGES.map((page) => (
          <NavLink
            key={page.to}
            to={page.to}
            end={page.end}
            className={({ isActive }) =>
              classes("-mb-px pb-1.5 font-serif", isActive && "border-b-2 border-heather font-semibold")
            }
          >
            {page.label}
          </NavLink>
        ))}
      </nav>
      <Outlet />
    </main>
  );
}
