package org.mossbank.server.table;

import org.mossbank.core.table.TableScale;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RequestPart;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.multipart.MultipartFile;

@RestController
class TableController {
    private final TableService tables;

    TableController(TableService tables) {
        this.tables = tables;
    }

    /** How far raters agree in a table of one's own; nothing is kept. */
    @MayRefuse(ProblemType.TABLE_REFUSED)
    @PostMapping(path = "/api/tables/agreement", consumes = MediaType.MULTIPART_FORM_DATA_VALUE)
    TableAgreementView agreement(
            @RequestPart("file") MultipartFile file, @RequestParam(defaultValue = "ORDINAL") TableScale scale) {
        return tables.agreement(file, scale);
    }
}
