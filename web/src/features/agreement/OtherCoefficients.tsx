import { queryOptions, useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import { api, type Schemas, unwrap } from "../../api/client";
import { Choice } from "../../ui/Field";
import { count } from "../../ui/format";
import { type Axis, FigureText, IntervalAxis, IntervalRow } from "../../ui/IntervalRow";
import { Query, WORKED_OUT } from "../../ui/Query";
import { Table } from "../../ui/Table";
import { studyKeys, useStudy } from "../study";
import { COEFFICIENT_NAMES, COEFFICIENT_SOURCES } from "./coefficients";

type Report = Schemas["AgreementReport"];
type Name = Schemas["CoefficientFigure"]["name"];
type Within = Schemas["CoefficientsReport"]["within"][number];

export const coefficientsOf = (studyId: string) =>
  queryOptions({
    queryKey: studyKeys.part(studyId, "agreement", "coefficients"),
    queryFn: ({ signal }) =>
      unwrap(api.GET("/api/studies/{studyId}/agreement/coefficients", { params: { path: { studyId } }, signal })),
  });

const NAMES = Object.keys(COEFFICIENT_NAMES).filter((n): n is Name => n in COEFFICIENT_NAMES);

/** Which coefficient is shown; none for those that decide. The address keeps it. */
export function useCoefficient() {
  const [address, setAddress] = useSearchParams();
  const chosen = NAMES.find((n) => n === address.get("coefficient"));
  const choose = (name: string) => {
    const next = new URLSearchParams(address);
    if (name === "") {
      next.delete("coefficient");
    } else {
      next.set("coefficient", name);
    }
    setAddress(next, { replace: true, preventScrollReset: true });
  };
  return { chosen, choose };
}

type CoefficientChoiceProps = {
  chosen: Name | undefined;
  decides: string;
  onChoose: (name: string) => void;
  /** In a line with other things. */
  inLine?: boolean;
};

export function CoefficientChoice({ chosen, decides, onChoose, inLine = false }: CoefficientChoiceProps) {
  return (
    <Choice
      label={inLine ? "Coefficient of the picture" : "Coefficient"}
      labelHidden={inLine}
      className={inLine ? "w-48" : "mb-2 w-80"}
      value={chosen ?? ""}
      options={[
        { value: "", label: `${decides}, with what decides` },
        ...NAMES.map((name) => ({ value: name, label: COEFFICIENT_NAMES[name] })),
      ]}
      onValue={onChoose}
    />
  );
}

/** One coefficient by criterion and kind; why there is none where there is none. */
export function OtherCoefficient({ report, name }: { report: Report; name: Name }) {
  const study = useStudy();
  const all = useQuery(coefficientsOf(study.id));
  return (
    <Query of={all} what="the coefficients" long={WORKED_OUT}>
      {({ within }) => (
        <>
          <Table
            caption={`${COEFFICIENT_NAMES[name]} by criterion and kind`}
            saveAs="coefficient"
            rows={within}
            rowKey={(w) => `${w.criterionId} ${w.kindId}`}
            rowClass={(w) => (w.kindId ? undefined : "border-t border-t-edge")}
            columns={columns(report, within, name)}
          />
          <p className="mt-2 max-w-3xl text-sm">
            {COEFFICIENT_SOURCES[name]} An interval of it takes answers as independent of each other; the one that
            decides does not. The rule looks at none of these but its own.
          </p>
        </>
      )}
    </Query>
  );
}

export const figureOf = (within: Within, name: Name): Schemas["Figure"] =>
  within.coefficients.find((c) => c.name === name)?.figure ?? { undefinedReason: "it is not defined for this scale" };

function columns(report: Report, within: Within[], name: Name) {
  const criterion = (w: Within) => report.criteria.find((c) => c.criterionId === w.criterionId);
  const lowest = Math.min(0, ...within.map((w) => figureOf(w, name).low ?? figureOf(w, name).value ?? 0));
  const axis: Axis = {
    from: Math.max(-1, Math.floor(lowest * 5) / 5),
    to: 1,
    decimals: 1,
    marks: [0, 0.5, 1].map((at) => ({ at, label: at.toString() })),
  };
  return [
    {
      key: "name",
      head: "Criterion, kind",
      rowHeader: true,
      cell: (w: Within) =>
        w.kindId ? (
          <span className="pl-4">{criterion(w)?.byKind.find((k) => k.kindId === w.kindId)?.name}</span>
        ) : (
          <strong className="font-semibold">{criterion(w)?.name}</strong>
        ),
    },
    {
      key: "picture",
      head: <IntervalAxis axis={axis} />,
      cell: (w: Within) => <IntervalRow figure={figureOf(w, name)} axis={axis} />,
    },
    {
      key: "value",
      head: "Value, 95 % interval",
      cell: (w: Within) => <FigureText figure={figureOf(w, name)} decimals={2} />,
    },
    {
      key: "answers",
      head: "Over",
      cell: (w: Within) => <span className="text-sm text-ink-soft">{count(w.answers, "answer", "answers")}</span>,
    },
  ];
}
