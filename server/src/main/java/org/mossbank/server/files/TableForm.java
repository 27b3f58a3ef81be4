package org.mossbank.server.files;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** Says that a record is the row of a table, whose columns are the record's components in their order. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.TYPE)
public @interface TableForm {
    /** The table's name in the package; its file is called by it. */
    String name();

    /** What the table holds, in a sentence. */
    String meaning();

    /** Columns that no two rows share together. */
    String[] key() default {};

    /** More columns that no two rows share together. */
    String[] unique() default {};
}
