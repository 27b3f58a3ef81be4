package org.mossbank.server.figures;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.transaction.annotation.Transactional;

interface KeptFigureRepository extends JpaRepository<KeptFigure, KeptFigure.Key> {
    /** In place of what was kept; two that come to it at once both may, and nothing is kept of a study that is gone. */
    @Modifying
    @Transactional
    @Query(nativeQuery = true, value = """
            insert into kept_figure (study_id, sort, revision, code, figures)
            select id, :sort, :revision, :code, :figures from study where id = :study
            on conflict (study_id, sort) do update
            set revision = excluded.revision, code = excluded.code, figures = excluded.figures""")
    void keep(UUID study, String sort, long revision, String code, String figures);
}
