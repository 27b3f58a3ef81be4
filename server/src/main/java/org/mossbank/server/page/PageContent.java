package org.mossbank.server.page;

import jakarta.validation.Valid;
import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.mossbank.core.page.PageSight;
import org.mossbank.core.page.PageSight.How;
import org.mossbank.core.page.PageStep;
import org.mossbank.core.page.PageStep.Action;
import org.mossbank.core.trial.SafePath;

/**
 * What a check asks of a page that an answer makes.
 *
 * @param sizes         at which all steps are gone through, each from the beginning
 * @param steps         the first opens a page
 * @param errorsAllowed whether errors that a page says do not matter
 */
public record PageContent(
        @NotEmpty @Size(max = 3) List<@Valid @NotNull PageSize> sizes,
        @NotEmpty @Size(max = MOST_PICTURES) List<@Valid @NotNull StepOfPage> steps,
        boolean errorsAllowed) {
    /** Of one trial: one after each step at each size. */
    public static final int MOST_PICTURES = 24;

    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_TEXT = 2_000;

    public PageContent {
        sizes = List.copyOf(sizes);
        steps = List.copyOf(steps);
    }

    /** In CSS pixels, which are those of its pictures. */
    public record PageSize(
            @Min(320) @Max(1920) int width,
            @Min(240) @Max(1600) int height) {}

    /**
     * One thing that is done on the page.
     *
     * @param role   of what it is done to, as browsers compute it; empty where it is done to nothing
     * @param name   of the same
     * @param text   a path of the page's files that is opened, what is typed or waited for, or keys with a plus between those that are
     *     held together
     * @param sights that must be seen afterwards
     */
    public record StepOfPage(
            @NotNull Action action,
            @NotNull @Size(max = 40) String role,
            @NotNull @Size(max = LONGEST_NAME) String name,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @NotNull @Size(max = 10) List<@Valid @NotNull SightOfPage> sights) {
        public StepOfPage {
            sights = List.copyOf(sights);
        }

        @AssertTrue(message = "text must be a path below the page's folder")
        boolean isOpeningAFile() {
            return action != Action.OPEN || text == null || SafePath.is(text.replaceFirst("[?#].*", ""));
        }

        @AssertTrue(message = "role must say what it is done to")
        boolean isDoneToSomething() {
            return role == null || !role.isBlank() || action != Action.CLICK && action != Action.TYPE;
        }

        @AssertTrue(message = "text must say what is typed, pressed or waited for")
        boolean isSayingWhat() {
            return action == Action.CLICK || text == null || !text.isBlank();
        }

        PageStep step() {
            return new PageStep(
                    action,
                    role,
                    name,
                    text,
                    sights.stream().map(SightOfPage::sight).toList());
        }
    }

    /**
     * What must be seen of the page, or must not.
     *
     * @param role   as browsers compute it; empty for a text
     * @param name   of the same
     * @param text   that stands on the page; empty for the others
     * @param absent whether it must not be there
     */
    public record SightOfPage(
            @NotNull How how,
            @NotNull @Size(max = 40) String role,
            @NotNull @Size(max = LONGEST_NAME) String name,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            boolean absent) {
        @AssertTrue(message = "a sight must say which text, or which role")
        boolean isOfSomething() {
            String said = how == How.TEXT ? text : role;
            return how == null || said == null || !said.isBlank();
        }

        PageSight sight() {
            return new PageSight(how, role, name, text, absent);
        }
    }

    // What is missing is refused by its own rule; a rule about more than one thing passes it over.

    @AssertTrue(message = "the first step must open a page")
    boolean isBegunByOpening() {
        return steps.isEmpty() || steps.get(0).action() == null || steps.get(0).action() == Action.OPEN;
    }

    @AssertTrue(message = "steps at all sizes must be at most " + MOST_PICTURES + " together")
    boolean isWithinItsPictures() {
        return steps.size() * sizes.size() <= MOST_PICTURES;
    }

    /** In their order. */
    public List<PageStep> asked() {
        return steps.stream().map(StepOfPage::step).toList();
    }
}
