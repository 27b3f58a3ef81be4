package org.mossbank.core.masking;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Looks for what gives a candidate away: the names, versions and words of a study, phrases in which a model introduces
 * itself, and signatures. What it finds are proposals; somebody who reads them decides. It prefers to find too much.
 *
 * <p>Cost: linear in the text for each term. Every repetition in a phrase is bounded, so that one search neither runs on
 * nor goes deep, whatever the text holds.
 */
public final class GiveAways {
    private static final int FLAGS = Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE;

    /** A maker or name after "by", up to the end of the clause. */
    private static final String MAKER = "[^\\s.,;:!?)*`]{1,100}+(?:\\s{1,9}+(?:(?:and|&|of)\\s{1,9}+)?"
            + "(?-i:\\p{Lu})[^\\s.,;:!?)*`]{0,100}+){0,8}";

    private static final String BY_WHOM =
            "(?:\\s{1,9}+(?:made|built|trained|developed|created|provided)\\s{1,9}+by\\s{1,9}+" + MAKER + ")?";

    private static final String MODEL =
            "(?:large\\s{1,9})?(?:(?:AI|language|code|coding|chat|foundation|generative)[\\s-]{1,9}){1,6}(?:model|assistant|system)s?";

    private static final List<Rule> SELF_INTRODUCTIONS = List.of(
            introduction(
                    "\\bas\\s{1,9}(?:an?|your|the)\\s{1,9}" + MODEL + BY_WHOM + "(?:\\s{0,9},)?",
                    "model",
                    "assistant",
                    "system"),
            introduction("\\bas\\s{1,9}an?\\s{1,9}AI\\b(?:\\s{0,9},)?", "asai", "asaai", "asanai"),
            introduction(
                    "\\bI(?:['’]m|\\s{1,9}am)\\s{1,9}(?:just\\s{1,9}|only\\s{1,9})?(?:[^\\s.,;:!?]{1,60}+(?:\\s{1,9}+[^\\s.,;:!?]{1,60}+)?\\s{0,9}+,\\s{0,9}+)?(?:an?|your|the)\\s{1,9}"
                            + MODEL + BY_WHOM,
                    "model",
                    "assistant",
                    "system"),
            introduction(
                    "\\bI\\s{1,9}was\\s{1,9}(?:made|built|trained|developed|created)\\s{1,9}by\\s{1,9}" + MAKER,
                    "iwas"),
            introduction(
                    "\\b(?:my|the)\\s{1,9}(?:training\\s{1,9}(?:data|cut-?off)|knowledge\\s{1,9}cut-?off)\\b(?:\\s{1,9}(?:is|was|ends|ended)(?:\\s{1,9}(?:in|at))?\\s{1,9}(?:\\p{L}{1,20}\\s{1,9})?\\d{4})?",
                    "training", "knowledgecut"),
            introduction("\\bmy\\s{1,9}name\\s{1,9}is\\s{1,9}\\p{Lu}[\\p{L}\\p{N}-]{0,100}+", "mynameis"));

    private static Rule introduction(String pattern, String... letters) {
        return new Rule(Pattern.compile(pattern, FLAGS), GiveAway.Sort.SELF_INTRODUCTION, List.of(letters));
    }

    /** To the end of the line or comment, but no further than this, so that no line can hold the search up. */
    private static String restUpTo(String end) {
        return "(?:[^\\n]{1,200}?(?=\\s{0,3}(?:\\*/|-->|" + end + "$))|[^\\n]{200})";
    }

    /** A line, or the rest of one after a comment's opening, that says who wrote it; the comment's closing stays. */
    private static final List<Rule> SIGNATURES = List.of(
            signature(
                    "(?:\\p{So}\\uFE0F?\\s?)?\\b(?:co-authored-by|signed-off-by|generated-by|assisted-by)\\s?:"
                            + restUpTo(""),
                    "authoredby",
                    "signedoffby",
                    "generatedby",
                    "assistedby"),
            signature(
                    "(?:\\p{So}\\uFE0F?\\s?)?\\b(?:generated|written|authored|produced|powered|assisted|drafted)"
                            + "\\s(?:automatically\\s)?(?:by|with|using)\\s"
                            + restUpTo("\\.\\s|\\.?"),
                    "generated",
                    "written",
                    "authored",
                    "produced",
                    "powered",
                    "assisted",
                    "drafted"),
            signature("@author\\b" + restUpTo(""), "author"));

    private static Rule signature(String pattern, String... letters) {
        return new Rule(Pattern.compile("(?m)" + pattern, FLAGS), GiveAway.Sort.SIGNATURE, List.of(letters));
    }

    /** Versions that could stand for anything count only beside a name. */
    private static final Pattern TELLING_VERSION = Pattern.compile(
            "\\P{L}*+\\p{L}\\P{N}*+\\p{N}.*|\\P{N}*+\\p{N}\\P{L}*+\\p{L}.*|\\d++[.\\-]\\d++[.\\-]\\d++.*");

    private static final String WITHHELD = "masked";

    /** Nobody decides on more in one text. */
    public static final int MOST = 20_000;

    private static final Found NOTHING = new Found(List.of(), true);

    private final List<Rule> rules;
    private final Needles needles;

    /**
     * @param anyOf letters and digits of which a text must hold one for the pattern to match; looking for them is quick
     */
    private record Rule(Pattern pattern, GiveAway.Sort sort, List<String> anyOf) {}

    private GiveAways(List<Rule> rules) {
        this.rules = rules;
        needles = new Needles(rules.stream().flatMap(r -> r.anyOf().stream()).toList());
    }

    /** What to look for; the same one serves all answers of a study. */
    public static GiveAways of(Terms terms) {
        List<Rule> rules = new ArrayList<>();
        add(rules, terms.names(), GiveAway.Sort.NAME, Function.identity());
        add(rules, terms.vendors(), GiveAway.Sort.VENDOR, Function.identity());
        add(
                rules,
                terms.versions().stream()
                        .filter(v -> TELLING_VERSION.matcher(v).matches())
                        .toList(),
                GiveAway.Sort.VERSION,
                Function.identity());
        for (String name : terms.names()) {
            add(rules, terms.versions(), GiveAway.Sort.NAME, version -> name + " " + version);
        }
        rules.addAll(SIGNATURES);
        rules.addAll(SELF_INTRODUCTIONS);
        return new GiveAways(List.copyOf(rules));
    }

    private static void add(
            List<Rule> rules, List<String> terms, GiveAway.Sort sort, Function<String, String> written) {
        terms.stream()
                .distinct()
                .map(written)
                .forEach(term -> TermPattern.of(term)
                        .ifPresent(p -> rules.add(new Rule(p, sort, List.of(String.valueOf(Needles.letters(term)))))));
    }

    /**
     * What a text was found to hold.
     *
     * @param all      in their order; none overlaps another
     * @param complete whether that is all; a text with more than {@link #MOST} is not searched to its end
     */
    public record Found(List<GiveAway> all, boolean complete) {
        public Found {
            all = List.copyOf(all);
        }
    }

    private record Match(Span span, GiveAway.Sort sort) {}

    /** All give-aways of a text, up to {@link #MOST} for each term. */
    public Found in(CharSequence text) {
        List<Match> matches = new ArrayList<>();
        boolean complete = true;
        Set<String> near = needles.in(text);
        for (Rule rule : rules) {
            // Most terms are nowhere near, and then no pattern is needed.
            if (Collections.disjoint(rule.anyOf(), near)) {
                continue;
            }
            Matcher matcher = rule.pattern().matcher(text);
            int left = MOST;
            while (matcher.find()) {
                if (left-- == 0) {
                    complete = false;
                    break;
                }
                matches.add(new Match(new Span(matcher.start(), matcher.end()), rule.sort()));
            }
        }
        // Most texts give nobody away, and where they are code need not be known.
        if (matches.isEmpty()) {
            return NOTHING;
        }
        List<GiveAway> apart = withoutOverlaps(replaced(text, matches));
        boolean few = apart.size() <= MOST;
        return new Found(few ? apart : apart.subList(0, MOST), complete && few);
    }

    private static List<GiveAway> replaced(CharSequence text, List<Match> matches) {
        CodeRegions code = CodeRegions.of(text);
        return matches.stream()
                .map(m -> new GiveAway(m.span, m.sort, replacement(text, m.span, code)))
                .toList();
    }

    private static List<GiveAway> withoutOverlaps(List<GiveAway> found) {
        TreeMap<Integer, GiveAway> kept = new TreeMap<>();
        found.stream()
                .sorted(Comparator.comparingInt(
                                (GiveAway g) -> g.span().from() - g.span().to())
                        .thenComparingInt(g -> g.span().from())
                        .thenComparing(GiveAway::sort))
                .filter(g -> isFree(g.span(), kept))
                .forEach(g -> kept.put(g.span().from(), g));
        return List.copyOf(kept.values());
    }

    private static boolean isFree(Span span, TreeMap<Integer, GiveAway> kept) {
        Map.Entry<Integer, GiveAway> before = kept.lowerEntry(span.to());
        return before == null || !before.getValue().span().overlaps(span);
    }

    /** In code a word in the case of what stood there, so that it stays code; in prose the word in brackets. */
    private static String replacement(CharSequence text, Span span, CodeRegions code) {
        if (!code.hold(span)) {
            return "[" + WITHHELD + "]";
        }
        String was = span.of(text);
        if (was.equals(was.toUpperCase(Locale.ROOT)) && was.length() > 1) {
            return WITHHELD.toUpperCase(Locale.ROOT);
        }
        return Character.isUpperCase(was.codePointAt(0))
                ? WITHHELD.substring(0, 1).toUpperCase(Locale.ROOT) + WITHHELD.substring(1)
                : WITHHELD;
    }
}
