import type { Schemas } from "../../api/client";
import { LIMITS } from "../../api/limits";
import { AddButton } from "../../ui/AddButton";
import { Button } from "../../ui/Button";
import { Choice, Field, NumberField, Tick } from "../../ui/Field";
import type { Content } from "./CheckPage";

type Page = Schemas["PageContent"];
type Step = Page["steps"][number];
type Sight = Step["sights"][number];

const OPEN: Step = { action: "OPEN", role: "", name: "", text: "index.html", sights: [] };

/** As a page is looked at when a check begins. */
export const FRESH_PAGE: Page = { sizes: [{ width: 1280, height: 800 }], steps: [OPEN], errorsAllowed: false };

type PageFieldsProps = { content: Content; onContent: (next: Content, group?: string) => void };

/** What is done on a page that an answer makes, and what must be seen of it. */
export function PageFields({ content, onContent }: PageFieldsProps) {
  const { page, ...rest } = content;
  const write = (change: Partial<Page>, group?: string) =>
    onContent({ ...rest, page: { ...FRESH_PAGE, ...page, ...change } }, group);
  return (
    <fieldset>
      <legend className="mb-1 font-medium">Page</legend>
      <Tick
        checked={page !== undefined}
        label="A page is opened and looked at"
        hint="In a browser that is shut in, step by step, with a picture after each."
        onTick={(has) => onContent(has ? { ...rest, page: FRESH_PAGE } : rest)}
      />
      {page && (
        <div className="mt-2 grid gap-4">
          <Sizes sizes={page.sizes} onSizes={(sizes) => write({ sizes }, "sizes")} />
          <Steps steps={page.steps} onSteps={(steps, group) => write({ steps }, group)} />
          <Tick
            checked={page.errorsAllowed}
            label="Errors that the page says do not matter"
            onTick={(errorsAllowed) => write({ errorsAllowed })}
          />
        </div>
      )}
    </fieldset>
  );
}

type SizesProps = { sizes: Page["sizes"]; onSizes: (sizes: Page["sizes"]) => void };

function Sizes({ sizes, onSizes }: SizesProps) {
  return (
    <fieldset>
      <legend className="mb-1 text-sm text-ink-soft">All steps are gone through at each size.</legend>
      <ol className="flex flex-wrap gap-4">
        {sizes.map((size, i) => (
          <li key={i} className="flex items-end gap-2">
            <NumberField
              className="w-28"
              label={`Size ${i + 1}: width`}
              value={size.width}
              onNumber={(width) => width !== undefined && onSizes(sizes.with(i, { ...size, width }))}
            />
            <NumberField
              className="w-28"
              label="height"
              value={size.height}
              onNumber={(height) => height !== undefined && onSizes(sizes.with(i, { ...size, height }))}
            />
            {sizes.length > 1 && (
              <Button aria-label={`Take out size ${i + 1}`} onClick={() => onSizes(sizes.toSpliced(i, 1))}>
                Take out
              </Button>
            )}
          </li>
        ))}
      </ol>
      {sizes.length < 3 && (
        <div className="mt-2">
          <AddButton onAdd={() => onSizes([...sizes, { width: 390, height: 800 }])}>Add a size</AddButton>
        </div>
      )}
    </fieldset>
  );
}

type StepsProps = { steps: Step[]; onSteps: (steps: Step[], group?: string) => void };

function Steps({ steps, onSteps }: StepsProps) {
  return (
    <div>
      <ol className="grid gap-5">
        {steps.map((step, i) => (
          <li key={i} className="grid gap-3 border-l-2 border-edge pl-3">
            <OneStep
              step={step}
              number={i + 1}
              onStep={(next, group) => onSteps(steps.with(i, next), group && `step ${i} ${group}`)}
              {...(i > 0 && { onTakeOut: () => onSteps(steps.toSpliced(i, 1)) })}
            />
          </li>
        ))}
      </ol>
      <div className="mt-2">
        <AddButton
          onAdd={() => onSteps([...steps, { action: "CLICK", role: "button", name: "", text: "", sights: [] }])}
        >
          Add a step
        </AddButton>
      </div>
    </div>
  );
}

const ACTIONS: { value: Step["action"]; label: string }[] = [
  { value: "OPEN", label: "open a file of it" },
  { value: "CLICK", label: "click" },
  { value: "TYPE", label: "type into" },
  { value: "PRESS", label: "press keys" },
  { value: "WAIT_FOR", label: "wait for a text" },
];

/** What a step does with its text; nothing where it has none. */
const TEXTS: Record<Step["action"], string | undefined> = {
  OPEN: "File",
  CLICK: undefined,
  TYPE: "What is typed",
  PRESS: "Keys, with a plus between those held together",
  WAIT_FOR: "Text",
};

/** A step of another action, without what that does not use. */
function turned(step: Step, action: Step["action"]): Step {
  const onSomething = action === "CLICK" || action === "TYPE";
  return {
    ...step,
    action,
    role: onSomething ? step.role || "button" : "",
    name: onSomething ? step.name : "",
    text: action === "OPEN" ? "index.html" : action === "PRESS" ? "Tab" : action === "CLICK" ? "" : "text",
  };
}

type OneStepProps = {
  step: Step;
  number: number;
  onStep: (step: Step, group?: string) => void;
  /** Absent for the first one, which opens the page. */
  onTakeOut?: () => void;
};

function OneStep({ step, number, onStep, onTakeOut }: OneStepProps) {
  const text = TEXTS[step.action];
  return (
    <>
      <div className="flex flex-wrap items-end gap-3">
        <Choice
          label={`Step ${number}`}
          value={step.action}
          options={number === 1 ? ACTIONS.slice(0, 1) : ACTIONS}
          onValue={(action) => onStep(turned(step, action))}
        />
        {(step.action === "CLICK" || step.action === "TYPE") && (
          <RoleAndName of={step} onOf={(change) => onStep({ ...step, ...change }, "what")} />
        )}
        {text !== undefined && (
          <Field
            className="grow"
            label={text}
            maxLength={LIMITS.StepOfPage.text}
            value={step.text}
            onChange={(e) => onStep({ ...step, text: e.target.value }, "text")}
          />
        )}
        {onTakeOut && (
          <Button aria-label={`Take out step ${number}`} onClick={onTakeOut}>
            Take out
          </Button>
        )}
      </div>
      <Sights
        sights={step.sights}
        step={number}
        onSights={(sights, group) => onStep({ ...step, sights }, group && `sight ${group}`)}
      />
    </>
  );
}

type RoleAndNameProps = {
  of: Pick<Step, "role" | "name">;
  onOf: (change: Partial<Pick<Step, "role" | "name">>) => void;
};

/** What is meant on a page, as a person who listens would find it. */
function RoleAndName({ of, onOf }: RoleAndNameProps) {
  return (
    <>
      <Field
        className="w-36"
        label="Role"
        maxLength={LIMITS.StepOfPage.role}
        value={of.role}
        onChange={(e) => onOf({ role: e.target.value })}
      />
      <Field
        className="grow"
        label="Name"
        maxLength={LIMITS.StepOfPage.name}
        value={of.name}
        onChange={(e) => onOf({ name: e.target.value })}
      />
    </>
  );
}

const HOWS: { value: Sight["how"]; label: string }[] = [
  { value: "TEXT", label: "a text" },
  { value: "ROLE", label: "something by its role" },
  { value: "FOCUS", label: "what has the focus" },
];

type SightsProps = { sights: Sight[]; step: number; onSights: (sights: Sight[], group?: string) => void };

/** What must be seen after a step, or must not. */
function Sights({ sights, step, onSights }: SightsProps) {
  return (
    <div className="pl-3">
      <ol className="grid gap-3">
        {sights.map((sight, i) => (
          <li key={i} className="flex flex-wrap items-end gap-3">
            <Choice
              label={`After step ${step}, sight ${i + 1}`}
              value={sight.how}
              options={HOWS}
              onValue={(how) =>
                onSights(
                  sights.with(
                    i,
                    how === "TEXT"
                      ? { ...sight, how, role: "", name: "", text: sight.text || "text" }
                      : { ...sight, how, role: sight.role || "button", text: "" },
                  ),
                )
              }
            />
            {sight.how === "TEXT" ? (
              <Field
                className="grow"
                label="Text of the sight"
                maxLength={LIMITS.SightOfPage.text}
                value={sight.text}
                onChange={(e) => onSights(sights.with(i, { ...sight, text: e.target.value }), `${i}`)}
              />
            ) : (
              <RoleAndName of={sight} onOf={(change) => onSights(sights.with(i, { ...sight, ...change }), `${i}`)} />
            )}
            <Tick
              checked={sight.absent}
              label="must not be so"
              onTick={(absent) => onSights(sights.with(i, { ...sight, absent }))}
            />
            <Button
              aria-label={`Take out sight ${i + 1} of step ${step}`}
              onClick={() => onSights(sights.toSpliced(i, 1))}
            >
              Take out
            </Button>
          </li>
        ))}
      </ol>
      <div className="mt-2">
        <AddButton
          onAdd={() => onSights([...sights, { how: "TEXT", role: "", name: "", text: "text", absent: false }])}
        >
          Add what must be seen after step {step}
        </AddButton>
      </div>
    </div>
  );
}
