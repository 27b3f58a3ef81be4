package org.mossbank.server.memo.paper;

/** HTML while it is written: whatever is told is escaped, whatever is markup is written here. */
final class Html {
    private final StringBuilder out = new StringBuilder();

    /** Markup that stands in the code. */
    Html raw(String markup) {
        out.append(markup);
        return this;
    }

    /** Anything else. */
    Html text(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            switch (c) {
                case '&' -> out.append("&amp;");
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '"' -> out.append("&quot;");
                case '\'' -> out.append("&#39;");
                default -> out.append(c);
            }
        }
        return this;
    }

    /** An element with nothing but text in it. */
    Html element(String name, String text) {
        return raw("<" + name + ">").text(text).raw("</" + name + ">\n");
    }

    @Override
    public String toString() {
        return out.toString();
    }
}
