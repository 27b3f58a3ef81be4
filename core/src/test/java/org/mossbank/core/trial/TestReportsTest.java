package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class TestReportsTest {
    @Test
    public void readsTestsOfAReportInXml() throws TestReports.Unreadable {
        String xml = """
                <testsuites><testsuite name="x" tests="3">
                  <properties><property name="p" value="v"/></properties>
                  <testcase classname="TideTest" name="high"/>
                  <testcase classname="TideTest" name="low"><failure message="expected 1 but was 2">at …</failure></testcase>
                  <testcase name="later"><skipped/></testcase>
                  <testcase name="broken"><error message="boom"/><system-out>x</system-out></testcase>
                </testsuite></testsuites>
                """;

        assertThat(TestReports.junit(xml))
                .containsExactly(
                        new TestResult("TideTest: high", TestResult.End.PASSED, ""),
                        new TestResult("TideTest: low", TestResult.End.FAILED, "expected 1 but was 2"),
                        new TestResult("later", TestResult.End.SKIPPED, ""),
                        new TestResult("broken", TestResult.End.FAILED, "boom"));
    }

    @DataProvider
    public Object[][] hostile() {
        return new Object[][] {
            {
                "an external entity",
                "<!DOCTYPE a [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><a><testcase name=\"&x;\"/></a>"
            },
            {"entities in entities", "<!DOCTYPE a [<!ENTITY x \"yyyy\"><!ENTITY z \"&x;&x;\">]><a>&z;</a>"},
            {"no XML", "ok 1"},
            {"cut off", "<testsuite><testcase name=\"a\">"},
            {"too many", "<a>" + "<testcase name=\"a\"/>".repeat(2_001) + "</a>"},
        };
    }

    @Test(dataProvider = "hostile")
    public void refusesWhatIsNoReport(String name, String xml) {
        assertThatThrownBy(() -> TestReports.junit(xml)).as(name).isInstanceOf(TestReports.Unreadable.class);
    }

    @Test
    public void namesAndMessagesAreCut() throws TestReports.Unreadable {
        String xml = "<a><testcase name=\"" + "n".repeat(1_000) + "\"><failure message=\"" + "m".repeat(9_000)
                + "\"/></testcase></a>";

        assertThat(TestReports.junit(xml)).singleElement().satisfies(t -> {
            assertThat(t.name()).hasSize(300);
            assertThat(t.message()).hasSize(2_000);
        });
    }

    @Test
    public void readsLinesOfTheProtocol() throws TestReports.Unreadable {
        String tap = """
                TAP version 14
                1..4
                ok 1 - high tide
                not ok 2 - low tide
                  ---
                  message: off by one
                  ...
                ok 3 - later # SKIP no sea
                not ok 4 - some day # TODO
                """;

        assertThat(TestReports.tap(tap))
                .containsExactly(
                        new TestResult("high tide", TestResult.End.PASSED, ""),
                        new TestResult("low tide", TestResult.End.FAILED, ""),
                        new TestResult("later", TestResult.End.SKIPPED, ""),
                        new TestResult("some day", TestResult.End.SKIPPED, ""));
    }

    @Test
    public void whatSumsUpOthersIsNoTestOfItsOwn() throws TestReports.Unreadable {
        String tap = """
                # Subtest: tides
                    ok 1 - high
                    not ok 2 - low
                    1..2
                not ok 1 - tides
                ok 2 - moon
                1..2
                """;

        assertThat(TestReports.tap(tap)).extracting(TestResult::name).containsExactly("high", "low", "moon");
    }

    @Test
    public void oneThatFailsByItselfCounts() throws TestReports.Unreadable {
        assertThat(TestReports.tap("    ok 1 - high\nnot ok 1 - clean up\n1..1\n"))
                .extracting(TestResult::name)
                .containsExactly("high", "clean up");
    }

    @DataProvider
    public Object[][] unfinished() {
        return new Object[][] {
            {"ended early", "1..3\nok 1 - a\n", "3 tests were planned, and 1 ended"},
            {"nothing", "hello\n", "it tells of no test"},
            {"gave up", "ok 1 - a\nBail out! no sea\n", "the tests gave up: no sea"},
        };
    }

    @Test(dataProvider = "unfinished")
    public void oneThatEndsEarlyHasNotPassed(String name, String tap, String why) {
        assertThatThrownBy(() -> TestReports.tap(tap)).as(name).hasMessage(why);
    }

    @Test(timeOut = 60_000)
    public void aLineWithoutEndIsPassedOver() throws TestReports.Unreadable {
        assertThat(TestReports.tap("ok ".repeat(1 << 20) + "\nok 1 - a\n")).hasSize(1);
    }
}
