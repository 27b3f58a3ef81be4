package org.mossbank.server.mail;

import org.springframework.stereotype.Component;

/** What all letters look like. */
@Component
public class MailTexts {
    private final MailSettings settings;

    MailTexts(MailSettings settings) {
        this.settings = settings;
    }

    /** A letter that leads to the first page. */
    public Letter letter(String subject, String name, String words) {
        return new Letter(subject, """
                Hello %s,

                %s

                %s
                """.formatted(name, words, at("/")));
    }

    /** An address of a page, as people reach it. */
    String at(String path) {
        return settings.address().replaceAll("/+$", "") + path;
    }
}
