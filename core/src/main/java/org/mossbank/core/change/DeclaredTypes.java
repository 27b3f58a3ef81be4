package org.mossbank.core.change;

import java.util.List;
import java.util.regex.Pattern;

/** Types that code declares at its left edge, not within another, in any of the usual languages. */
public final class DeclaredTypes {
    /** What may stand before one is bounded, as lines are not. */
    private static final Pattern TYPE = Pattern.compile(
            "(?m)^(?:\\w[\\w ]{0,200} )?(?:class|record|interface|enum|struct|trait|object|type) {1,20}+(\\w{1,200}+)");

    private static final String PUBLIC = "public ";

    private DeclaredTypes() {}

    /** @param isPublic whether it says so itself */
    public record Declared(String name, boolean isPublic) {}

    /** In their order. */
    public static List<Declared> in(CharSequence code) {
        return TYPE.matcher(code)
                .results()
                .map(found -> new Declared(found.group(1), found.group().startsWith(PUBLIC)))
                .toList();
    }
}
