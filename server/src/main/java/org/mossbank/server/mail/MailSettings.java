package org.mossbank.server.mail;

import jakarta.validation.constraints.AssertTrue;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Pattern;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;
import org.springframework.validation.annotation.Validated;

/**
 * How mail goes out; it does not where no host is named.
 *
 * @param host     the mail server
 * @param port     its port
 * @param user     whom it knows us as; empty where it asks nobody
 * @param password the user's password
 * @param from     from whom letters are
 * @param security how the way to the server is kept secret
 * @param address  where people reach Mossbank, for links in letters
 */
@Validated
@ConfigurationProperties("mossbank.mail")
record MailSettings(
        @DefaultValue("") String host,
        @DefaultValue("587") @Min(1) @Max(65535) int port,
        @DefaultValue("") String user,
        @DefaultValue("") String password,
        @DefaultValue("") String from,
        @DefaultValue("STARTTLS") Security security,

        @DefaultValue("") @Pattern(regexp = "|https?://[^\\s]+")
        String address) {

    /** How the way to the server is kept secret. */
    enum Security {
        /** Not at all: for a server on this machine. */
        NONE,
        /** Asked for on the way, and nothing goes out without. */
        STARTTLS,
        /** From the beginning. */
        TLS
    }

    boolean isOn() {
        return !host.isBlank();
    }

    /** Letters without an address to come from, or to lead to, help nobody. */
    @AssertTrue(message = "mossbank.mail.from and mossbank.mail.address must be there where mossbank.mail.host is")
    boolean isWhole() {
        return !isOn() || !from.isBlank() && !address.isBlank();
    }

    /** Without the password, so that no log can hold it. */
    @Override
    public String toString() {
        return "MailSettings[" + host + ":" + port + "]";
    }
}
