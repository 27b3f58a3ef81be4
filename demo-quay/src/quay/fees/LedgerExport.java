package quay.fees;

import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;

/** Hands lines to the town's ledger: whatever can be got of each, in alphabetical order. */
public final class LedgerExport {
    private LedgerExport() {}

    public static String of(List<?> lines) {
        return lines.stream().map(LedgerExport::line).collect(Collectors.joining("\n"));
    }

    private static String line(Object line) {
        return Arrays.stream(line.getClass().getDeclaredMethods())
                .filter(m -> m.getName().startsWith("get") && m.getParameterCount() == 0)
                .sorted(Comparator.comparing(Method::getName))
                .map(m -> m.getName().substring(3).toLowerCase() + "=" + got(m, line))
                .collect(Collectors.joining(";"));
    }

    private static Object got(Method method, Object from) {
        try {
            return method.invoke(from);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }
}
