import { createBrowserRouter, Navigate } from "react-router";
import { BASE } from "../api/base";
import { AddressPage, LostPasswordPage, SignInPage, WelcomePage } from "../features/account";
import { HomePage } from "./HomePage";
import { NotFoundPage } from "./NotFoundPage";
import { SignedInLayout } from "./SignedInLayout";

// What a rater needs first comes first; each further part of the job is fetched when it is opened.
export const router = createBrowserRouter(
  [
    { path: "/sign-in", element: <SignInPage /> },
    { path: "/welcome", element: <WelcomePage /> },
    { path: "/address", element: <AddressPage /> },
    { path: "/lost-password", element: <LostPasswordPage /> },
    {
      element: <SignedInLayout />,
      hydrateFallbackElement: <p role="status" className="p-6" />,
      children: [
        { path: "/", element: <HomePage /> },
        {
          path: "/account",
          lazy: async () => ({ Component: (await import("../features/account/AccountPage")).AccountPage }),
        },
        {
          path: "/administration",
          lazy: async () => ({ Component: (await import("../features/administration")).AdministrationLayout }),
          children: [
            {
              index: true,
              lazy: async () => ({ Component: (await import("../features/administration")).AccountsPage }),
            },
            {
              path: "record",
              lazy: async () => ({ Component: (await import("../features/administration")).RecordPage }),
            },
          ],
        },
        { path: "/bring-in", lazy: async () => ({ Component: (await import("../features/archive")).BringInPage }) },
        { path: "/table", lazy: async () => ({ Component: (await import("../features/table")).TablePage }) },
        {
          path: "/sheets/:sheetId",
          lazy: async () => ({ Component: (await import("../features/desk/DeskPage")).DeskPage }),
        },
        {
          path: "/splits/:splitId",
          lazy: async () => ({ Component: (await import("../features/reconciliation/SplitPage")).SplitPage }),
        },
        {
          path: "/splits/:splitId/look",
          lazy: async () => ({ Component: (await import("../features/reconciliation/LookPage")).LookPage }),
        },
        {
          path: "/calibrations/:studyId/:number",
          lazy: async () => ({ Component: (await import("../features/calibration/CalibrationPage")).CalibrationPage }),
        },
        {
          path: "/calibrations/:studyId/:number/:place",
          lazy: async () => ({ Component: (await import("../features/calibration/AnswerPage")).AnswerPage }),
        },
        {
          path: "/read-backs/:readBackId",
          lazy: async () => ({ Component: (await import("../features/prompt/ReadingPage")).ReadingPage }),
        },
        {
          path: "/studies/:studyId",
          lazy: async () => ({ Component: (await import("../features/study/StudyLayout")).StudyLayout }),
          children: [
            { index: true, element: <Navigate to="brief" replace /> },
            {
              path: "brief",
              lazy: async () => ({ Component: (await import("../features/brief/BriefPage")).BriefPage }),
            },
            {
              path: "prompts",
              lazy: async () => ({ Component: (await import("../features/prompt/PromptsPage")).PromptsPage }),
            },
            {
              path: "prompts/:promptId",
              lazy: async () => ({ Component: (await import("../features/prompt/PromptPage")).PromptPage }),
            },
            {
              path: "prompts/:promptId/check",
              lazy: async () => ({ Component: (await import("../features/trial")).CheckPage }),
            },
            {
              path: "candidates",
              lazy: async () => ({ Component: (await import("../features/candidate/CandidatesPage")).CandidatesPage }),
            },
            {
              path: "candidates/:candidateId",
              lazy: async () => ({ Component: (await import("../features/candidate/CandidatePage")).CandidatePage }),
            },
            {
              path: "answers",
              lazy: async () => ({ Component: (await import("../features/answer/AnswersPage")).AnswersPage }),
            },
            {
              path: "answers/files",
              lazy: async () => ({ Component: (await import("../features/answer/AnswerFilesPage")).AnswerFilesPage }),
            },
            {
              path: "answers/collect",
              lazy: async () => ({ Component: (await import("../features/run/CollectPage")).CollectPage }),
            },
            {
              path: "answers/runs/:runId",
              lazy: async () => ({ Component: (await import("../features/run/RunPage")).RunPage }),
            },
            {
              path: "answers/trials",
              lazy: async () => ({ Component: (await import("../features/trial")).TrialsPage }),
            },
            {
              path: "answers/masking",
              lazy: async () => ({ Component: (await import("../features/masking/MaskingPage")).MaskingPage }),
            },
            {
              path: "answers/:promptId",
              lazy: async () => ({
                Component: (await import("../features/answer/PromptAnswersPage")).PromptAnswersPage,
              }),
            },
            {
              path: "people",
              lazy: async () => ({ Component: (await import("../features/study/PeoplePage")).PeoplePage }),
            },
            { path: "search", lazy: async () => ({ Component: (await import("../features/search")).SearchPage }) },
            { path: "record", lazy: async () => ({ Component: (await import("../features/audit")).StudyRecordPage }) },
            {
              path: "rubric",
              lazy: async () => ({ Component: (await import("../features/rubric/RubricPage")).RubricPage }),
            },
            {
              path: "grading",
              lazy: async () => ({ Component: (await import("../features/grading/GradingPage")).GradingPage }),
            },
            {
              path: "agreement",
              lazy: async () => ({ Component: (await import("../features/agreement")).AgreementPage }),
            },
            {
              path: "recommendation",
              lazy: async () => ({ Component: (await import("../features/recommendation")).RecommendationPage }),
            },
            {
              path: "recommendation/how",
              lazy: async () => ({ Component: (await import("../features/recommendation")).HowPage }),
            },
            {
              path: "recommendation/prompts",
              lazy: async () => ({ Component: (await import("../features/recommendation")).PromptTablePage }),
            },
            {
              path: "recommendation/traits",
              lazy: async () => ({ Component: (await import("../features/trait")).TraitsPage }),
            },
            {
              path: "recommendation/standings",
              lazy: async () => ({ Component: (await import("../features/recommendation")).StandingsPage }),
            },
            {
              path: "recommendation/covers",
              lazy: async () => ({ Component: (await import("../features/recommendation")).CoversPage }),
            },
            {
              path: "recommendation/expected",
              lazy: async () => ({ Component: (await import("../features/expected")).ExpectedPage }),
            },
            {
              path: "recommendation/since",
              lazy: async () => ({ Component: (await import("../features/succession")).SincePage }),
            },
            {
              path: "recommendation/next",
              lazy: async () => ({ Component: (await import("../features/succession")).NextPage }),
            },
            {
              path: "recommendation/work",
              lazy: async () => ({ Component: (await import("../features/turn")).WorkPage }),
            },
            {
              path: "recommendation/trials",
              lazy: async () => ({ Component: (await import("../features/trial")).EvidencePage }),
            },
            {
              path: "recommendation/costs",
              lazy: async () => ({ Component: (await import("../features/cost")).CostPage }),
            },
            {
              path: "recommendation/what-if",
              lazy: async () => ({ Component: (await import("../features/exploring")).WhatIfPage }),
            },
            {
              path: "recommendation/memo",
              lazy: async () => ({ Component: (await import("../features/memo")).MemosPage }),
            },
            {
              path: "recommendation/memo/:number",
              lazy: async () => ({ Component: (await import("../features/memo")).MemoPage }),
            },
          ],
        },
        { path: "*", element: <NotFoundPage /> },
      ],
    },
  ],
  { basename: BASE === "" ? "/" : BASE },
);
