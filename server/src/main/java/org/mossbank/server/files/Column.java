package org.mossbank.server.files;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * What a column of a table holds. Its name, its type and whether it must be there come from the component that it stands at:
 * {@code fromLine} is {@code from_line}; a primitive number and what is {@code @NotNull} must be there, a {@code @Nullable}
 * text is absent where nothing is written, another one empty; a truth is written only if it is true; a list stands in one
 * cell with ; between its items. Limits are those of bean validation at the component, or at the one that {@link As} names.
 */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface Column {
    /** The meaning, in a phrase. */
    String value();

    /** Whether it holds a key of its own table; that must be there, and looks like a key. */
    boolean key() default false;

    /** Where a key of another table is meant: the table and its column, as in {@code prompts.prompt}. */
    String in() default "";
}
