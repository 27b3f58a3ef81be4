package org.mossbank.server.succession;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.Keys;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.StudyPeople;
import org.springframework.stereotype.Component;

/** What raters of the study before are called in the one that follows: whoever has left may have no name there. */
@Component
class BeforeNames {
    private final StudyPeople people;

    BeforeNames(StudyPeople people) {
        this.people = people;
    }

    /** @param keys by which a file names raters of this study; absent where nothing is handed out, and sign-in names stay */
    Before of(StudyId study, Before before, @Nullable Keys keys) {
        Map<String, StudyPeople.Remembered> known = people.remembered(
                study,
                before.parts().stream()
                        .filter(p -> p.sort() == Before.Sort.RATER)
                        .map(Before.Part::key)
                        .toList());
        List<Before.Part> parts = new ArrayList<>();
        for (Before.Part part : before.parts()) {
            StudyPeople.Remembered person = part.sort() == Before.Sort.RATER ? known.get(part.key()) : null;
            parts.add(person == null ? part : called(part, person, keys, parts.size()));
        }
        return before.named(parts);
    }

    private static Before.Part called(Before.Part part, StudyPeople.Remembered person, @Nullable Keys keys, int place) {
        String name = person.hiddenAs() == null ? part.name() : person.hiddenAs();
        if (keys == null) {
            return new Before.Part(part.sort(), part.key(), name, part.weight());
        }
        String here = keys.orNone(person.id());
        String key = person.hiddenAs() == null ? part.key() : "left-" + place;
        return new Before.Part(part.sort(), here == null ? key : here, name, part.weight());
    }
}
