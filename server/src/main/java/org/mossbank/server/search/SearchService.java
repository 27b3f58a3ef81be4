package org.mossbank.server.search;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Finds by PostgreSQL's full-text search. One question goes over rows of several modules, and writes none of them: asked module by
 * module, pages could not be cut. In the order of the study, not of likeness: to rank would read every text that is found anew.
 */
@Service
@Transactional(readOnly = true)
class SearchService {
    static final int PAGE = 50;

    /** Before and behind a find; taken out of a text first, so that none marks anything itself. */
    private static final String BEGIN = "\u0001";

    private static final String END = "\u0002";

    /** Stand for angles, as where words are taken from a text. */
    private static final String ANGLES = "\uE000\uE001";

    private static final String FIND = """
            with asked as (select websearch_to_tsquery('simple', :words) as q),
            found as (
                select 1 as place, 'PROMPT' as sort, p.id as prompt_id, cast(null as uuid) as answer_id, p.id as own
                from prompt p, asked where p.study_id = :study and words_of(p.title || ' ' || p.request) @@ q
                union all
                select 2, 'ANSWER', a.prompt_id, a.id, a.id
                from answer a, asked where a.study_id = :study and words_of(a.text) @@ q
                union all
                select 3, 'REMARK', s.prompt_id, sa.answer_id, r.id
                from remark r join sheet_answer sa on sa.id = r.sheet_answer_id join sheet s on s.id = sa.sheet_id, asked
                where s.study_id = :study and s.withdrawn_at is null and not r.removed and words_of(r.words) @@ q
                union all
                select 3, 'REASON', s.prompt_id, sa.answer_id, sa.id
                from sheet_answer sa join sheet s on s.id = sa.sheet_id, asked
                where s.study_id = :study and s.withdrawn_at is null and sa.reason <> '' and words_of(sa.reason) @@ q),
            page as (
                select found.*, p.title, p.request, p.place as prompt_place from found join prompt p on p.id = found.prompt_id
                order by found.place, p.place, found.answer_id, found.own limit :most offset :from),
            texts as (
                select page.*, c.name as candidate, case page.sort
                    when 'PROMPT' then page.title || ' ' || page.request
                    when 'ANSWER' then a.text
                    when 'REMARK' then (select r.words from remark r where r.id = page.own)
                    else (select sa.reason from sheet_answer sa where sa.id = page.own) end as words
                from page left join answer a on a.id = page.answer_id left join candidate c on c.id = a.candidate_id)
            select sort, prompt_id, answer_id, title, candidate,
                ts_headline('simple', translate(left(words, 65536), '<>' || :begin || :end, :angles), (select q from asked),
                    'StartSel=' || :begin || ',StopSel=' || :end || ',MaxFragments=2,MaxWords=24,MinWords=8,FragmentDelimiter=" … "')
                    as shown
            from texts order by place, prompt_place, answer_id, own""";

    private final JdbcClient database;

    SearchService(JdbcClient database) {
        this.database = database;
    }

    /**
     * What is looked for.
     *
     * @param words all of them must stand in a text; in quotes one after the other, with {@code or} between them either, with a minus
     *     before it one must not
     * @param from  the first find, from 0
     */
    record SearchQuery(
            @NotBlank @Size(max = 200) String words,
            @Min(0) @Max(10_000) @Nullable Integer from) {}

    /** Where words were found. */
    enum Sort {
        PROMPT,
        ANSWER,
        REMARK,
        REASON
    }

    /** A piece of a text; whether it is one of the words. */
    record FoundPiece(String text, boolean found) {}

    /**
     * @param answerId  absent for a prompt
     * @param title     of the prompt
     * @param candidate whose answer it is; absent for a prompt, and for an answer of nobody
     * @param pieces    of the text, about where the words stand
     */
    record FoundPlace(
            Sort sort,
            PromptId promptId,
            @Nullable AnswerId answerId,
            String title,
            @Nullable String candidate,
            List<FoundPiece> pieces) {
        private static FoundPlace from(ResultSet row, int number) throws SQLException {
            UUID answer = row.getObject("answer_id", UUID.class);
            return new FoundPlace(
                    Sort.valueOf(row.getString("sort")),
                    new PromptId(row.getObject("prompt_id", UUID.class)),
                    answer == null ? null : new AnswerId(answer),
                    row.getString("title"),
                    row.getString("candidate"),
                    split(row.getString("shown")));
        }
    }

    /**
     * @param finds in prompts first, then in answers, then in what raters said; each in the order of prompts
     * @param next  what is sent as {@code from} to go on; absent at the end
     */
    record FoundWords(List<FoundPlace> finds, @Nullable Integer next) {}

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public FoundWords find(StudyId study, SearchQuery query) {
        int from = query.from() == null ? 0 : query.from();
        List<FoundPlace> finds = database.sql(FIND)
                .param("words", query.words())
                .param("study", study.value())
                .param("most", PAGE + 1)
                .param("from", from)
                .param("begin", BEGIN)
                .param("end", END)
                .param("angles", ANGLES)
                .query(FoundPlace::from)
                .list();
        boolean more = finds.size() > PAGE;
        return new FoundWords(more ? finds.subList(0, PAGE) : finds, more ? from + PAGE : null);
    }

    private static List<FoundPiece> split(String headline) {
        String shown = headline.replace(ANGLES.charAt(0), '<').replace(ANGLES.charAt(1), '>');
        List<FoundPiece> pieces = new ArrayList<>();
        int at = 0;
        while (at < shown.length()) {
            int begin = shown.indexOf(BEGIN, at);
            int end = begin < 0 ? -1 : shown.indexOf(END, begin);
            if (end < 0) {
                pieces.add(new FoundPiece(shown.substring(at), false));
                break;
            }
            if (begin > at) {
                pieces.add(new FoundPiece(shown.substring(at, begin), false));
            }
            pieces.add(new FoundPiece(shown.substring(begin + 1, end), true));
            at = end + 1;
        }
        return pieces;
    }
}
