package org.mossbank.server.collection;

import org.mossbank.server.files.WrittenSchemas;
import org.testng.annotations.Test;

/** What the documentation shows of a table of answers is what is read. */
public class AnswerTableTest {
    @Test
    public void itsSchemaIsInTheDocumentation() throws Exception {
        WrittenSchemas.assertWritten(AnswerTableRow.TABLE);
    }
}
