package org.mossbank.core.masking;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Looks for what gives a candidate away: the names, versions and words of a study, phrases in which a model introduces
 * itself, and signatures. What it finds are proposals; somebody who reads them decides. It prefers to find too much.
 *
 * <p>Cost: linear in the text for each term.
 */
public final class GiveAways {
    private static final int FLAGS = Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE;

    /** A maker or name after "by", up to the end of the clause. */
    private static final String MAKER = "[^\\s.,;:!?)*`]+(?:\\s+(?:(?:and|&|of)\\s+)?(?-i:\\p{Lu})[^\\s.,;:!?)*`]*)*";

    private static final String BY_WHOM =
            "(?:\\s+(?:made|built|trained|developed|created|provided)\\s+by\\s+" + MAKER + ")?";

    private static final String MODEL =
            "(?:large\\s+)?(?:(?:AI|language|code|coding|chat|foundation|generative)[\\s-]+)+(?:model|assistant|system)s?";

    private static final List<Pattern> SELF_INTRODUCTIONS = Stream.of(
                    "\\bas\\s+(?:an?|your|the)\\s+" + MODEL + BY_WHOM + "(?:\\s*,)?",
                    "\\bas\\s+an?\\s+AI\\b(?:\\s*,)?",
                    "\\bI(?:['’]m|\\s+am)\\s+(?:just\\s+|only\\s+)?(?:[^\\s.,;:!?]+(?:\\s+[^\\s.,;:!?]+)?\\s*,\\s*)?(?:an?|your|the)\\s+"
                            + MODEL + BY_WHOM,
                    "\\bI\\s+was\\s+(?:made|built|trained|developed|created)\\s+by\\s+" + MAKER,
                    "\\b(?:my|the)\\s+(?:training\\s+(?:data|cut-?off)|knowledge\\s+cut-?off)\\b(?:\\s+(?:is|was|ends|ended)(?:\\s+(?:in|at))?\\s+(?:\\p{L}+\\s+)?\\d{4})?",
                    "\\bmy\\s+name\\s+is\\s+\\p{Lu}[\\p{L}\\p{N}-]*")
            .map(p -> Pattern.compile(p, FLAGS))
            .toList();

    /** To the end of the line or comment, but no further than this, so that no line can hold the search up. */
    private static String restUpTo(String end) {
        return "(?:[^\\n]{1,200}?(?=\\s{0,3}(?:\\*/|-->|" + end + "$))|[^\\n]{200})";
    }

    /** A line, or the rest of one after a comment's opening, that says who wrote it; the comment's closing stays. */
    private static final List<Pattern> SIGNATURES = Stream.of(
                    "(?:\\p{So}\\uFE0F?\\s?)?\\b(?:co-authored-by|signed-off-by|generated-by|assisted-by)\\s?:"
                            + restUpTo(""),
                    "(?:\\p{So}\\uFE0F?\\s?)?\\b(?:generated|written|authored|produced|powered|assisted|drafted)"
                            + "\\s(?:automatically\\s)?(?:by|with|using)\\s"
                            + restUpTo("\\.\\s|\\.?"),
                    "@author\\b" + restUpTo(""))
            .map(p -> Pattern.compile("(?m)" + p, FLAGS))
            .toList();

    /** Versions that could stand for anything count only beside a name. */
    private static final Pattern TELLING_VERSION =
            Pattern.compile(".*\\p{L}.*\\p{N}.*|.*\\p{N}.*\\p{L}.*|\\d+[.\\-]\\d+[.\\-]\\d+.*");

    private static final String WITHHELD = "masked";

    private final List<Rule> rules;

    private record Rule(Pattern pattern, GiveAway.Sort sort) {}

    private GiveAways(List<Rule> rules) {
        this.rules = rules;
    }

    /** What to look for; the same one serves all answers of a study. */
    public static GiveAways of(Terms terms) {
        List<Rule> rules = new ArrayList<>();
        add(rules, terms.names(), GiveAway.Sort.NAME, Function.identity());
        add(rules, terms.vendors(), GiveAway.Sort.VENDOR, Function.identity());
        terms.versions().stream()
                .filter(v -> TELLING_VERSION.matcher(v).matches())
                .flatMap(v -> TermPattern.of(v).stream())
                .forEach(p -> rules.add(new Rule(p, GiveAway.Sort.VERSION)));
        for (String name : terms.names()) {
            add(rules, terms.versions(), GiveAway.Sort.NAME, version -> name + " " + version);
        }
        SIGNATURES.forEach(p -> rules.add(new Rule(p, GiveAway.Sort.SIGNATURE)));
        SELF_INTRODUCTIONS.forEach(p -> rules.add(new Rule(p, GiveAway.Sort.SELF_INTRODUCTION)));
        return new GiveAways(List.copyOf(rules));
    }

    private static void add(
            List<Rule> rules, List<String> terms, GiveAway.Sort sort, Function<String, String> written) {
        terms.stream().map(written).flatMap(t -> TermPattern.of(t).stream()).forEach(p -> rules.add(new Rule(p, sort)));
    }

    /** All give-aways of a text in their order; none overlaps another. */
    public List<GiveAway> in(String text) {
        List<GiveAway> found = new ArrayList<>();
        CodeRegions code = CodeRegions.of(text);
        for (Rule rule : rules) {
            Matcher matcher = rule.pattern().matcher(text);
            while (matcher.find()) {
                Span span = new Span(matcher.start(), matcher.end());
                found.add(new GiveAway(span, rule.sort(), replacement(text, span, code)));
            }
        }
        return withoutOverlaps(found);
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
    private static String replacement(String text, Span span, CodeRegions code) {
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
