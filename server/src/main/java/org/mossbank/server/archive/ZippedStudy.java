package org.mossbank.server.archive;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.StudyZip;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.stereotype.Component;

/** The archive that a memo rests on. */
@Component
class ZippedStudy implements StudyZip {
    private final StudyExport export;
    private final HeavyWork heavy;

    ZippedStudy(StudyExport export, HeavyWork heavy) {
        this.export = export;
        this.heavy = heavy;
    }

    @Override
    public byte[] of(StudyId study) {
        StudyArchive whole = export.of(study).withoutMemos();
        return heavy.run(() -> {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try {
                ArchiveWriter.write(whole).writeZip(out);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return out.toByteArray();
        });
    }
}
