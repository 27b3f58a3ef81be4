package org.mossbank.server.files;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** Says that a column holds what a property of a request holds, so that its limits are that property's. */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface As {
    /** The record that has the property. */
    Class<? extends Record> value();

    /** The property; by itself the one of the same name. */
    String property() default "";

    /** What of it. */
    Part part() default Part.VALUE;

    /** What of a property a column holds. */
    enum Part {
        VALUE,
        /** One item of a list. */
        ITEM,
        /** The place of an item in a list, from 1. */
        PLACE
    }
}
