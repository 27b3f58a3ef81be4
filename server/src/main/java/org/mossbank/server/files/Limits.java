package org.mossbank.server.files;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Digits;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.lang.reflect.AnnotatedParameterizedType;
import java.lang.reflect.AnnotatedType;
import java.lang.reflect.RecordComponent;
import java.math.BigDecimal;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.shared.FreeKey;
import tools.jackson.databind.node.ObjectNode;

/**
 * The limits of a column.
 *
 * @param decimals how many places a number may have after its point
 */
record Limits(
        @Nullable String pattern,
        @Nullable BigDecimal minimum,
        @Nullable BigDecimal maximum,
        @Nullable Integer maxLength,
        @Nullable Integer decimals) {
    /** Above it not every reader of JSON knows a whole number exactly. */
    private static final long MOST_EXACT = (1L << 53) - 1;

    static Limits of(RecordComponent component, Column column) {
        boolean isKey = column.key() || !column.in().isEmpty();
        Limits own = at(component.getAnnotatedType());
        if (isKey && own.pattern == null) {
            return new Limits(FreeKey.FORM, null, null, null, null);
        }
        As as = component.getAnnotation(As.class);
        return as == null ? own : own.and(of(as, as.property().isEmpty() ? component.getName() : as.property()));
    }

    private static Limits of(As as, String property) {
        AnnotatedType type = Arrays.stream(as.value().getRecordComponents())
                .filter(c -> c.getName().equals(property))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(
                        "property is one of " + as.value().getSimpleName() + ": " + property))
                .getAnnotatedType();
        return switch (as.part()) {
            case VALUE -> at(type).withoutForm();
            case ITEM ->
                at(((AnnotatedParameterizedType) type).getAnnotatedActualTypeArguments()[0])
                        .withoutForm();
            case PLACE ->
                new Limits(null, BigDecimal.ONE, BigDecimal.valueOf(sizeAt(type).max()), null, null);
        };
    }

    private static Size sizeAt(AnnotatedType type) {
        return type.getAnnotation(Size.class);
    }

    private static Limits at(AnnotatedType type) {
        Pattern pattern = type.getAnnotation(Pattern.class);
        Size size = type.getAnnotation(Size.class);
        Digits digits = type.getAnnotation(Digits.class);
        return new Limits(
                pattern == null ? null : pattern.regexp(),
                minimum(type),
                maximum(type, digits),
                size == null ? null : size.max(),
                digits == null ? null : digits.fraction());
    }

    private static @Nullable BigDecimal minimum(AnnotatedType type) {
        Min whole = type.getAnnotation(Min.class);
        DecimalMin decimal = type.getAnnotation(DecimalMin.class);
        return whole != null
                ? BigDecimal.valueOf(whole.value())
                : decimal == null ? null : new BigDecimal(decimal.value());
    }

    private static @Nullable BigDecimal maximum(AnnotatedType type, @Nullable Digits digits) {
        Max whole = type.getAnnotation(Max.class);
        DecimalMax decimal = type.getAnnotation(DecimalMax.class);
        if (whole != null) {
            return BigDecimal.valueOf(whole.value());
        }
        if (decimal != null) {
            return new BigDecimal(decimal.value());
        }
        // So many nines before the point and after it.
        return digits == null
                ? null
                : BigDecimal.TEN.pow(digits.integer()).subtract(BigDecimal.ONE.movePointLeft(digits.fraction()));
    }

    /** A form is told in words of its own where it stands: the one of a request need not be one that other programs read. */
    private Limits withoutForm() {
        return new Limits(null, minimum, maximum, maxLength, decimals);
    }

    private Limits and(Limits other) {
        return new Limits(
                pattern == null ? other.pattern : pattern,
                minimum == null ? other.minimum : minimum,
                maximum == null ? other.maximum : maximum,
                maxLength == null ? other.maxLength : maxLength,
                decimals == null ? other.decimals : decimals);
    }

    /** A whole number has the limits of what holds it, where it has none of its own. */
    Limits ofWhole(Class<?> type) {
        boolean isInt = type == int.class || type == Integer.class;
        boolean isLong = type == long.class || type == Long.class;
        if (!isInt && !isLong) {
            return this;
        }
        return new Limits(
                pattern,
                minimum == null ? BigDecimal.valueOf(isInt ? Integer.MIN_VALUE : -MOST_EXACT) : minimum,
                maximum == null ? BigDecimal.valueOf(isInt ? Integer.MAX_VALUE : MOST_EXACT) : maximum,
                maxLength,
                decimals);
    }

    void writeTo(ObjectNode rules) {
        if (pattern != null) {
            rules.put("pattern", pattern);
        }
        if (minimum != null) {
            rules.put("minimum", minimum);
        }
        if (maximum != null) {
            rules.put("maximum", maximum);
        }
        if (maxLength != null) {
            rules.put("maxLength", maxLength);
        }
    }
}
