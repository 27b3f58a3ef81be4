package org.mossbank.core.page;

import java.util.List;

/**
 * One thing that is done on a page, and what must be seen afterwards.
 *
 * @param role   of what it is done to, as browsers compute it; empty where it is done to nothing
 * @param name   of the same, as browsers compute it
 * @param text   what is opened, typed or waited for; keys with a plus between those that are held together
 * @param sights in their order
 */
public record PageStep(Action action, String role, String name, String text, List<PageSight> sights) {
    public PageStep {
        sights = List.copyOf(sights);
    }

    /** What is done. */
    public enum Action {
        OPEN,
        CLICK,
        TYPE,
        PRESS,
        WAIT_FOR
    }

    /** In words. */
    public String words() {
        return switch (action) {
            case OPEN -> "open " + text;
            case CLICK -> "click " + role + " “" + name + "”";
            case TYPE -> "type “" + text + "” into " + role + " “" + name + "”";
            case PRESS -> "press " + text;
            case WAIT_FOR -> "wait for “" + text + "”";
        };
    }
}
