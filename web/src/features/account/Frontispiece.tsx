import { at } from "../../api/base";
import type { ReactNode } from "react";

/** The page before the sign-in: the bank in section, and one sheet of paper on it. */
export function Frontispiece({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="relative flex min-h-dvh flex-col items-center overflow-hidden px-4 pt-[9vh] pb-16">
      <svg
        className="absolute inset-x-0 bottom-0 h-[38vh] w-full"
        viewBox="0 0 1200 300"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <path d="M0 90C160 40 300 120 480 84S820 30 980 78s150 10 220 2v220H0z" fill="var(--lichen-wash)" />
        <path d="M0 150c200-44 330 40 560 4s400-40 640 10v136H0z" fill="var(--ochre-wash)" />
        <path d="M0 205c180 30 360-30 600 0s420 20 600-16v111H0z" fill="var(--clay-wash)" />
        <path d="M0 258c240-20 420 18 620 0s380-8 580 8v34H0z" fill="var(--tarn-wash)" />
      </svg>
      <main className="relative w-full max-w-md">
        <p className="mb-6 flex items-center justify-center gap-2 font-serif text-2xl font-semibold">
          <img src={at("/mossbank.svg")} alt="" width={30} height={30} /> Mossbank
        </p>
        <div className="rounded-leaf border border-rule bg-vellum p-6">
          <h1 className="mb-4 text-2xl">{title}</h1>
          {children}
        </div>
      </main>
    </div>
  );
}
