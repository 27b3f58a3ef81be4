import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { Button } from "../../ui/Button";
import { Confirm } from "../../ui/Dialog";
import { count, moment } from "../../ui/format";
import { Query } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { Trouble } from "../../ui/Trouble";
import { useStudy } from "../study";
import { ActsSection } from "./ActsSection";
import { looksAtStudy, useTakeLook } from "./api";

type Looks = Schemas["LooksView"];

/** While raters grade: how far they are, and what may be seen before they have ended. */
export function HiddenStandings() {
  const study = useStudy();
  const looks = useQuery(looksAtStudy(study.id));
  return (
    <Query of={looks} what="how far grading is">
      {(at) => (
        <div className="max-w-4xl">
          <h1>How candidates stand is hidden until grading ends</h1>
          <p className="mt-2 max-w-3xl">
            Whoever watches standings and stops when they like what they see finds leaders that there are not. So nobody
            sees them before grading ends, you included.{" "}
            {at.allowed === 1
              ? "The brief allows one look, at the end."
              : `The brief allows ${at.allowed} looks, the last at the end; each before it spends its part of what may be said falsely.`}
          </p>
          <HowFar at={at} />
          {at.taken.length > 0 && (
            <section className="mt-6">
              <h2 className="mb-1">Looks so far</h2>
              <LooksTable taken={at.taken} />
            </section>
          )}
          {at.allowed > 1 && study.role === "LEAD" && <TakeLook at={at} />}
          <p className="mt-6">
            <Link to="../grading">How far the raters are, and closing the round</Link>
          </p>
          <ActsSection />
        </div>
      )}
    </Query>
  );
}

function HowFar({ at }: { at: Looks }) {
  return (
    <dl className="mt-5 grid max-w-2xl grid-cols-[max-content_1fr] gap-x-6 gap-y-1">
      <dt className="text-ink-soft">Sheets sent in</dt>
      <dd>
        {at.sent} of {at.sheets}
      </dd>
      <dt className="text-ink-soft">Prompts that would count now</dt>
      <dd>
        {at.counted} of {at.planned}
        <span className="text-ink-soft">, each of their answers with as many raters as the rule asks for</span>
      </dd>
    </dl>
  );
}

function TakeLook({ at }: { at: Looks }) {
  const study = useStudy();
  const take = useTakeLook(study.id);
  const navigate = useNavigate();
  const [asking, setAsking] = useState(false);
  const number = at.taken.length + 1;
  return (
    <section className="mt-6 border-t border-rule pt-4">
      <h2>
        Look {number <= at.allowed ? number : at.allowed} of {at.allowed}
      </h2>
      {at.refusal !== undefined ? (
        <p className="mt-1 text-ink-soft">{at.refusal}</p>
      ) : (
        <>
          <p className="mt-1 mb-3 max-w-2xl">
            Now it would rest on {at.counted} of {count(at.planned, "prompt", "prompts")}. The earlier a look, the less
            may be said at it. What is seen is kept, and never changes.
          </p>
          <Button onClick={() => setAsking(true)}>Take this look …</Button>
        </>
      )}
      <Trouble error={take.error} className="mt-2" />
      <Confirm
        title={`Take look ${number} of ${at.allowed}?`}
        open={asking}
        onOpenChange={setAsking}
        action="Take it"
        busy={take.isPending}
        onConfirm={() =>
          take.mutate(undefined, {
            onSuccess: (taken) => void navigate(`?look=${taken.number}`),
            onError: () => setAsking(false),
          })
        }
      >
        <p>
          It shows how candidates stand on {at.counted} of {count(at.planned, "prompt", "prompts")}, by the part of the
          allowance that it may spend. It stays on record, and cannot be taken back.
        </p>
      </Confirm>
    </section>
  );
}

export function LooksTable({ taken }: { taken: Schemas["LookTaken"][] }) {
  return (
    <Table
      caption="Looks before grading had ended"
      rows={taken}
      rowKey={(l) => String(l.number)}
      columns={[
        {
          key: "number",
          head: "Look",
          rowHeader: true,
          cell: (l) => <Link to={`?look=${l.number}`}>look {l.number}</Link>,
        },
        { key: "at", head: "When", cell: (l) => `${moment(l.at)}, ${l.by}` },
        { key: "counted", head: "Prompts", cell: (l) => `${l.counted} of ${l.planned}` },
        { key: "headline", head: "What the rule said", cell: (l) => l.headline },
      ]}
    />
  );
}
