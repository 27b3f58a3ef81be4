package org.mossbank.core.trial;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** Reads the two open formats that test programs write. What a program of an answer could write itself is read as hostile. */
public final class TestReports {
    private static final int MOST_TESTS = 2_000;
    private static final int LONGEST_NAME = 300;
    private static final int LONGEST_MESSAGE = 2_000;
    private static final int LONGEST_LINE = 4_000;
    private static final Pattern TAP_LINE =
            Pattern.compile("( *+)(not )?+ok\\b(?: ++(\\d{1,9}+))?+(?: ++-)?+ ?+([^#]*+)(?:#\\s*+(\\w{0,20}+).*+)?+");

    private TestReports() {}

    /** A report that cannot be read. */
    public static final class Unreadable extends Exception {
        private static final long serialVersionUID = 1;

        Unreadable(String why) {
            super(why);
        }
    }

    /**
     * The tests of a report in JUnit's XML, in their order. Entities and document types are refused.
     *
     * @throws Unreadable if it is no such report
     */
    public static List<TestResult> junit(String xml) throws Unreadable {
        List<TestResult> tests = new ArrayList<>();
        try {
            XMLStreamReader reader = factory().createXMLStreamReader(new StringReader(xml));
            try {
                while (reader.hasNext()) {
                    int event = reader.next();
                    if (event == XMLStreamConstants.DTD) {
                        throw new Unreadable("a report has no document type");
                    }
                    if (event == XMLStreamConstants.START_ELEMENT
                            && reader.getLocalName().equals("testcase")) {
                        tests.add(testCase(reader));
                    }
                    if (tests.size() > MOST_TESTS) {
                        throw new Unreadable("a report has at most %,d tests".formatted(MOST_TESTS));
                    }
                }
            } finally {
                reader.close();
            }
        } catch (XMLStreamException e) {
            throw new Unreadable("it is not well-formed XML");
        }
        return tests;
    }

    private static XMLInputFactory factory() {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        return factory;
    }

    private static TestResult testCase(XMLStreamReader reader) throws XMLStreamException {
        String type = reader.getAttributeValue(null, "classname");
        String name = (type == null || type.isEmpty() ? "" : type + ": ") + reader.getAttributeValue(null, "name");
        TestResult.End end = TestResult.End.PASSED;
        String message = "";
        int depth = 1;
        while (depth > 0 && reader.hasNext()) {
            int event = reader.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                depth++;
                String element = reader.getLocalName();
                if (element.equals("failure") || element.equals("error")) {
                    end = TestResult.End.FAILED;
                    String said = reader.getAttributeValue(null, "message");
                    message = message.isEmpty() && said != null ? said : message;
                } else if (element.equals("skipped") && end == TestResult.End.PASSED) {
                    end = TestResult.End.SKIPPED;
                }
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                depth--;
            }
        }
        return new TestResult(cut(name, LONGEST_NAME), end, cut(message, LONGEST_MESSAGE));
    }

    /**
     * The tests of a report by the Test Anything Protocol, those of the innermost level that tells any: what stands above only sums up.
     *
     * @throws Unreadable if no line tells of a test, or fewer than its plan says: a program that ends early has not passed
     * @see <a href="https://testanything.org/tap-version-14-specification.html">TAP 14</a>
     */
    public static List<TestResult> tap(String text) throws Unreadable {
        List<TestResult> tests = new ArrayList<>();
        List<Integer> depths = new ArrayList<>();
        int plan = -1;
        for (String line : (Iterable<String>) text.lines()::iterator) {
            if (line.length() > LONGEST_LINE) {
                continue;
            }
            if (line.startsWith("Bail out!")) {
                throw new Unreadable(
                        "the tests gave up: " + cut(line.substring(9).strip(), LONGEST_MESSAGE));
            }
            if (line.matches("1\\.\\.\\d{1,6}.*")) {
                plan = Integer.parseInt(line.substring(3).split("\\D", 2)[0]);
            }
            Matcher test = TAP_LINE.matcher(line);
            if (test.matches()) {
                depths.add(test.group(1).length());
                tests.add(result(test));
            }
            if (tests.size() > MOST_TESTS) {
                throw new Unreadable("a report has at most %,d tests".formatted(MOST_TESTS));
            }
        }
        long outer = depths.stream().filter(d -> d == 0).count();
        if (outer < plan) {
            throw new Unreadable("%,d tests were planned, and %,d ended".formatted(plan, outer));
        }
        return innermost(tests, depths);
    }

    /** A line below which deeper ones ended sums them up. */
    private static List<TestResult> innermost(List<TestResult> tests, List<Integer> depths) throws Unreadable {
        List<TestResult> leaves = new ArrayList<>();
        for (int i = 0; i < tests.size(); i++) {
            boolean sumsUp = i > 0 && depths.get(i - 1) > depths.get(i);
            // One that fails though all below it passed has failed by itself.
            if (!sumsUp || tests.get(i).end() == TestResult.End.FAILED && passedBelow(tests, depths, i)) {
                leaves.add(tests.get(i));
            }
        }
        if (leaves.isEmpty()) {
            throw new Unreadable("it tells of no test");
        }
        return leaves;
    }

    private static boolean passedBelow(List<TestResult> tests, List<Integer> depths, int at) {
        for (int i = at - 1; i >= 0 && depths.get(i) > depths.get(at); i--) {
            if (tests.get(i).end() == TestResult.End.FAILED) {
                return false;
            }
        }
        return true;
    }

    private static TestResult result(Matcher test) {
        String directive = test.group(5) == null ? "" : test.group(5).toUpperCase(java.util.Locale.ROOT);
        boolean isSkipped = directive.startsWith("SKIP") || directive.equals("TODO");
        TestResult.End end = isSkipped
                ? TestResult.End.SKIPPED
                : test.group(2) == null ? TestResult.End.PASSED : TestResult.End.FAILED;
        String name = test.group(4).strip();
        return new TestResult(
                cut(name.isEmpty() ? "test " + (test.group(3) == null ? "" : test.group(3)) : name, LONGEST_NAME),
                end,
                "");
    }

    private static String cut(String text, int most) {
        return text.length() <= most ? text : text.substring(0, most - 1) + "…";
    }
}
