package org.mossbank.server.ids;

import java.util.UUID;
import java.util.function.Function;
import org.hibernate.type.SqlTypes;
import org.hibernate.type.descriptor.WrapperOptions;
import org.hibernate.type.descriptor.java.AbstractClassJavaType;
import org.hibernate.type.descriptor.java.ImmutableMutabilityPlan;
import org.hibernate.type.descriptor.java.UUIDJavaType;
import org.hibernate.type.descriptor.jdbc.JdbcType;
import org.hibernate.type.descriptor.jdbc.JdbcTypeIndicators;
import org.jspecify.annotations.Nullable;

/** An id in the database: a UUID. */
final class IdJavaType<T extends Id<T>> extends AbstractClassJavaType<T> {
    private static final long serialVersionUID = 1;

    private final transient Function<UUID, T> of;

    IdJavaType(Class<T> type, Function<UUID, T> of) {
        super(type, ImmutableMutabilityPlan.instance());
        this.of = of;
    }

    @Override
    public JdbcType getRecommendedJdbcType(JdbcTypeIndicators indicators) {
        return indicators.getJdbcType(indicators.resolveJdbcTypeCode(SqlTypes.UUID));
    }

    @Override
    public T fromString(CharSequence text) {
        return of.apply(UUID.fromString(text.toString()));
    }

    @Override
    public <X> @Nullable X unwrap(@Nullable T id, Class<X> type, WrapperOptions options) {
        if (id == null) {
            return null;
        }
        return type.isInstance(id) ? type.cast(id) : UUIDJavaType.INSTANCE.unwrap(id.value(), type, options);
    }

    @Override
    public <X> @Nullable T wrap(@Nullable X value, WrapperOptions options) {
        if (value == null) {
            return null;
        }
        return getJavaTypeClass().isInstance(value)
                ? getJavaTypeClass().cast(value)
                : of.apply(UUIDJavaType.INSTANCE.wrap(value, options));
    }
}
