package org.mossbank.server.recommendation;

import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.Evidence;
import org.mossbank.core.diagnosis.Influence;
import org.mossbank.core.estimate.Binomial;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.robustness.GradedAnswers;
import org.mossbank.core.robustness.Robustness;
import org.mossbank.core.tradeoff.Attempts;
import org.mossbank.core.tradeoff.CostOfPrompts;
import org.mossbank.core.tradeoff.Mix;
import org.mossbank.server.agreement.Agreements;
import org.mossbank.server.agreement.StudyAgreement;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentPlace;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Component;

/** Works out what the outcome hangs on. */
@Component
class RobustnessComputation {
    private static final double LEVEL = 0.95;
    private static final int MINUTES_AN_HOUR = 60;
    private final Masking masking;
    private final Agreements agreements;
    private final Grading grading;
    private final HeavyWork heavy;
    private final Snapshot snapshot;
    private final RecommendationBasis basis;

    RobustnessComputation(
            Masking masking,
            Agreements agreements,
            Grading grading,
            HeavyWork heavy,
            Snapshot snapshot,
            RecommendationBasis basis) {
        this.masking = masking;
        this.agreements = agreements;
        this.grading = grading;
        this.heavy = heavy;
        this.snapshot = snapshot;
        this.basis = basis;
    }

    RobustnessReport compute(StudyId study) {
        return compute(study, UnaryOperator.identity());
    }

    /** Of the prompts alone that count. */
    RobustnessReport look(StudyId study) {
        return compute(study, RecommendationData::counted);
    }

    private RobustnessReport compute(StudyId study, UnaryOperator<RecommendationData> part) {
        StudyAgreement agreement = agreements.of(study);
        int giveAways = masking.namesLeft(study).size();
        RecommendationData data = basis.of(study);
        List<SentPlace> places = snapshot.of(() -> grading.sentPlaces(study));
        return heavy.run(() -> compute(part.apply(data), agreement, giveAways, places));
    }

    static RobustnessReport compute(
            RecommendationData data, StudyAgreement agreement, int giveAways, List<SentPlace> places) {
        return new Working(data, agreement, giveAways, places).report();
    }

    /** All that is worked out from one reading of a study. */
    private static final class Working {
        private final RecommendationData data;
        private final GradedAnswers graded;
        private final Evidence evidence;
        private final List<SentPlace> places;
        private final RobustnessWords words;

        Working(RecommendationData data, StudyAgreement agreement, int giveAways, List<SentPlace> places) {
            this.data = data;
            this.graded = data.graded(data.rule().failedAnswers(), true);
            this.places = places;
            this.evidence = Ruling.evidence(data, agreement, new Standings(List.of(), List.of()), giveAways, List.of());
            this.words = new RobustnessWords(data);
        }

        RobustnessReport report() {
            Optional<Robustness> found = Decision.isWithheldWhateverTheScores(data.decisionRule(), evidence)
                    ? Optional.empty()
                    : Robustness.of(
                            graded.ofCandidates(data.contenders().stream()
                                    .map(CandidateView::key)
                                    .toList()),
                            data.weights(),
                            data.decisionRule(),
                            evidence,
                            LEVEL);
            List<ScoredCell> cells = graded.cells(data.weights());
            List<Attempts.Answer> answers = answers();
            List<RobustnessReport.AttemptsView> attempts = Attempts.of(answers).stream()
                    .filter(a -> a.prompts() > 0)
                    .map(a -> new RobustnessReport.AttemptsView(
                            data.candidateId(a.candidate()),
                            a.prompts(),
                            Figure.of(a.mean()),
                            Figure.of(a.worst()),
                            Figure.of(a.within())))
                    .toList();
            return new RobustnessReport(
                    found.map(words::sentence).orElse(""),
                    found.map(r -> r.without().stream().map(words::view).toList())
                            .orElse(List.of()),
                    found.map(Robustness::weightings).orElse(0),
                    found.map(Robustness::same).orElse(0.0),
                    found.map(this::shares).orElse(List.of()),
                    found.map(r -> r.along().stream().map(words::view).toList()).orElse(List.of()),
                    checks(),
                    attempts,
                    attempts.isEmpty() ? null : Figure.of(Attempts.between(answers)),
                    contending(cells)
                            .flatMap(c -> Mix.bestPair(c, data.groups(), LEVEL))
                            .map(this::view)
                            .orElse(null),
                    contending(cells)
                            .flatMap(c -> Mix.byKind(c, data.groups(), LEVEL))
                            .map(this::view)
                            .orElse(null),
                    worth(),
                    guesses());
        }

        private Optional<List<ScoredCell>> contending(List<ScoredCell> cells) {
            List<String> contenders =
                    data.contenders().stream().map(CandidateView::key).toList();
            List<ScoredCell> own = cells.stream()
                    .filter(c -> contenders.contains(c.candidate()))
                    .toList();
            return own.stream().map(ScoredCell::candidate).distinct().count() < 2 ? Optional.empty() : Optional.of(own);
        }

        private List<RobustnessReport.ShareView> shares(Robustness found) {
            return data.contenders().stream()
                    .map(c -> new RobustnessReport.ShareView(
                            c.id(),
                            found.best().getOrDefault(c.key(), 0.0),
                            found.safe().getOrDefault(c.key(), 0.0),
                            found.out().getOrDefault(c.key(), 0.0)))
                    .toList();
        }

        private RobustnessReport.MixView view(Mix mix) {
            return new RobustnessReport.MixView(
                    mix.candidates().stream().map(data::candidateId).toList(),
                    mix.kinds().stream().map(data::kindName).toList(),
                    Figure.of(mix.gain(), mix.interval()));
        }

        /** Each answer at the mean of its raters' scores. */
        private List<Attempts.Answer> answers() {
            Map<String, AnswerFacts> byKey =
                    data.answers().values().stream().collect(Collectors.toMap(AnswerFacts::key, a -> a));
            List<Attempts.Answer> all = new ArrayList<>();
            graded.meansOfAnswers(data.weights()).forEach((key, mean) -> {
                AnswerFacts answer = Require.known(byKey, key);
                all.add(new Attempts.Answer(
                        candidateKey(answer),
                        Require.known(data.prompts(), answer.promptId()).key(),
                        mean));
            });
            return all;
        }

        private String candidateKey(AnswerFacts answer) {
            return data.candidates().stream()
                    .filter(c -> c.id().equals(answer.candidateId()))
                    .map(CandidateView::key)
                    .findFirst()
                    .orElseThrow();
        }

        /** Within a candidate and a sheet, or a rater: whether its place, its length or the hour moves its score. */
        private List<RobustnessReport.CheckView> checks() {
            Map<GradedAnswers.Key, Double> scores = graded.scoresOfAnswers(data.weights());
            Map<RobustnessReport.Influence, List<Influence.Observation>> all = new HashMap<>();
            for (SentPlace place : places) {
                AnswerFacts answer = data.answers().get(place.answerId());
                Double score = answer == null
                        ? null
                        : scores.get(new GradedAnswers.Key(
                                answer.key(),
                                Require.known(data.raters(), place.raterId()).signInName()));
                if (answer == null || score == null || answer.isWithoutText()) {
                    continue;
                }
                String prompt = Require.known(data.prompts(), answer.promptId()).key();
                String rater = Require.known(data.raters(), place.raterId()).signInName();
                String candidate = candidateKey(answer);
                var sent = place.sentAt().atOffset(ZoneOffset.UTC);
                double hour = sent.getHour() + sent.getMinute() / (double) MINUTES_AN_HOUR;
                // Against the other raters of the same answer, and the same rater's usual.
                add(all, RobustnessReport.Influence.PLACE_ON_SHEET, answer.key(), rater, prompt, place.place(), score);
                add(all, RobustnessReport.Influence.HOUR, answer.key(), rater, prompt, hour, score);
                // An answer has one length: against the same candidate's other answers, on the same sheet.
                double doublings = Math.log(Math.max(1, answer.characters())) / Math.log(2);
                add(all, RobustnessReport.Influence.LENGTH, candidate, rater + " " + prompt, prompt, doublings, score);
            }
            return java.util.Arrays.stream(RobustnessReport.Influence.values())
                    .map(of -> {
                        Influence found = Influence.of(all.getOrDefault(of, List.of()), LEVEL);
                        return new RobustnessReport.CheckView(
                                of, Figure.of(found.slope(), found.interval()), found.scores());
                    })
                    .toList();
        }

        private static void add(
                Map<RobustnessReport.Influence, List<Influence.Observation>> all,
                RobustnessReport.Influence of,
                String first,
                String second,
                String cluster,
                double x,
                double score) {
            all.computeIfAbsent(of, o -> new ArrayList<>())
                    .add(new Influence.Observation(first, second, cluster, x, score));
        }

        /** Points of score for each unit of money that a prompt costs on average. */
        private List<RobustnessReport.WorthView> worth() {
            CostOfPrompts costs = data.costs();
            List<Standing> standings = graded.grid(data.weights())
                    .map(g -> Standings.of(g, new Standings.Options(0, LEVEL), Resamples.generator(0))
                            .standings())
                    .orElse(List.of());
            return standings.stream()
                    .filter(s -> costs.mean(s.candidate()).orElse(0) > 0)
                    .map(s -> worth(s, costs))
                    .toList();
        }

        private RobustnessReport.WorthView worth(Standing standing, CostOfPrompts costs) {
            double cost = costs.mean(standing.candidate()).orElseThrow();
            Estimate points = standing.adjusted().map(x -> x / cost);
            Interval interval = standing.interval() instanceof Interval.Bounds b
                    ? new Interval.Bounds(b.low() / cost, b.high() / cost, b.level())
                    : standing.interval();
            return new RobustnessReport.WorthView(
                    data.candidateId(standing.candidate()), Figure.of(points, interval), costs.currency());
        }

        private RobustnessReport.@Nullable GuessView guesses() {
            int tries = 0;
            int hits = 0;
            Map<AnswerId, AnswerFacts> answers = data.answers();
            for (SentPlace place : places) {
                AnswerFacts answer = answers.get(place.answerId());
                if (answer != null && place.guess() != null) {
                    tries++;
                    hits += answer.candidateId().equals(place.guess()) ? 1 : 0;
                }
            }
            if (tries == 0) {
                return null;
            }
            double chance = 1.0 / data.candidates().size();
            Binomial found = Binomial.of(hits, tries, chance, LEVEL);
            return new RobustnessReport.GuessView(
                    hits, tries, Figure.of(found.share(), found.interval()), chance, Figure.of(found.p()));
        }
    }
}
