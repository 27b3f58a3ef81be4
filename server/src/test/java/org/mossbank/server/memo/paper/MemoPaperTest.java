package org.mossbank.server.memo.paper;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import org.mossbank.server.memo.document.EntryView;
import org.mossbank.server.memo.document.MemoDocument;
import org.mossbank.server.memo.document.MemoHead;
import org.mossbank.server.memo.document.MemoSection;
import org.mossbank.server.memo.document.NamesShown;
import org.mossbank.server.memo.document.WholeMemo;
import org.testng.annotations.Test;

/** A memo written down, without a server. */
public class MemoPaperTest {
    private static final Instant THEN = Instant.parse("2026-03-10T09:14:04Z");

    private static MemoDocument.MemoTable table(List<List<String>> rows) {
        return new MemoDocument.MemoTable(
                "Scores",
                List.of(new MemoDocument.MemoColumn("Candidate", false), new MemoDocument.MemoColumn("Score", true)),
                rows);
    }

    private static WholeMemo memo(String said, String words, List<EntryView> entries) {
        MemoDocument.MemoPart summary = new MemoDocument.MemoPart(
                MemoSection.SUMMARY,
                MemoSection.SUMMARY.title(),
                List.of(said),
                List.of(new MemoDocument.MemoPoint("Recommended", "We recommend Teasel.")),
                "",
                words,
                List.of(new MemoDocument.MemoPlot(
                        "Scores of 100",
                        "points",
                        0,
                        100,
                        List.of(
                                new MemoDocument.PlotRow("Teasel", 50, 25.0, 120.0),
                                new MemoDocument.PlotRow("Osier", 0, null, null)))),
                List.of(table(List.of(List.of("Teasel", "50.0")))));
        MemoDocument.MemoPart appendix = new MemoDocument.MemoPart(
                MemoSection.APPENDIX, MemoSection.APPENDIX.title(), List.of(), List.of(), "", "", List.of(), List.of());
        return new WholeMemo(
                new MemoHead(2, THEN, "Orla", "The price fell", new MemoHead.MemoSignature(THEN, "Orla")),
                new MemoDocument("Which?", THEN, 7, NamesShown.BY_NAME, List.of(summary, appendix), List.of()),
                table(List.of(List.of("a|b", "1"))),
                "cafe",
                entries);
    }

    @Test
    public void thePageSaysWhichVersionItIsAndWhatItRestsOn() {
        String page = MemoPage.of(memo("Asked.", "", List.of()));
        assertThat(page)
                .contains("Version 2, signed by Orla on 10 March 2026, 09:14 UTC.")
                .contains("The price fell.")
                .contains("checksum cafe.");
    }

    @Test
    public void intervalsAreDrawnWhereTheyLieAndEndWithTheAxis() {
        String page = MemoPage.of(memo("Asked.", "", List.of()));
        // The axis goes from 220 to 680: 25 lies at 335, 50 at 450, and 120 at its end.
        assertThat(page)
                .contains("class=\"interval\" x1=\"335.0\" x2=\"680.0\"")
                .contains("<circle cx=\"450.0\"")
                .contains("<circle cx=\"220.0\"");
    }

    @Test
    public void theLongTableStandsInTheAppendix() {
        assertThat(MemoPage.of(memo("Asked.", "", List.of()))).contains("a|b");
        assertThat(MemoMarkdown.of(memo("Asked.", "", List.of()))).contains("| a\\|b | 1 |");
    }

    @Test
    public void whatIsToldIsTextOnEveryPaper() {
        String odd = "<b>bold</b> & *not* [a](b)\nnext";
        assertThat(MemoPage.of(memo(odd, "", List.of()))).contains("&lt;b&gt;bold&lt;/b&gt; &amp; *not* [a](b)");
        assertThat(MemoMarkdown.of(memo(odd, "", List.of())))
                .contains("\\<b\\>bold\\</b\\> \\& \\*not\\* \\[a\\]\\(b\\) next");
    }

    @Test
    public void wordsOfTheLeadAreMarkdownBelowTheirPart() {
        assertThat(LeadWords.html("# Head\n\n**bold**\n\n| a |\n|---|\n| 1 |"))
                .contains("<h3>Head</h3>")
                .contains("<strong>bold</strong>")
                .contains("<td>1</td>");
        assertThat(LeadWords.html("###### Six")).contains("<h6>");
    }

    /** Quotes within quotes cost no more than their length. */
    @Test
    public void noTextIsTooDeepToBeWrittenDown() {
        assertThat(LeadWords.html(">".repeat(20_000) + " so")).contains("so");
        assertThat(LeadWords.html("[".repeat(20_000))).contains("[");
        assertThat(LeadWords.html("*a **b ".repeat(2_500))).contains("a");
    }

    @Test
    public void whatCameLaterStandsOnTheFirstPage() {
        EntryView decided = new EntryView(EntryView.Sort.DECIDED, "Teasel for a year", "The board", "Orla", THEN);
        EntryView second = new EntryView(EntryView.Sort.COUNTERSIGNED, "", "", "Bram", THEN);
        String page = MemoPage.of(memo("Asked.", "", List.of(decided, second)));
        assertThat(page).contains("Decided by The board: Teasel for a year.").contains("Countersigned.");
        assertThat(page.indexOf("Decided by")).isLessThan(page.indexOf("class=\"appendix\""));
    }
}
