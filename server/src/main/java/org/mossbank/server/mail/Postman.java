package org.mossbank.server.mail;

import jakarta.mail.Address;
import jakarta.mail.MessagingException;
import jakarta.mail.SendFailedException;
import jakarta.mail.internet.MimeMessage;
import java.nio.charset.StandardCharsets;
import java.util.Properties;
import org.springframework.mail.MailException;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import org.springframework.mail.javamail.MimeMessageHelper;
import org.springframework.stereotype.Component;

/** Hands letters to the mail server. Nobody waits for one that does not answer. */
@Component
class Postman {
    private static final String PATIENCE_MS = "10000";

    private final MailSettings settings;
    private final JavaMailSenderImpl sender = new JavaMailSenderImpl();

    Postman(MailSettings settings) {
        this.settings = settings;
        sender.setHost(settings.host());
        sender.setPort(settings.port());
        sender.setDefaultEncoding(StandardCharsets.UTF_8.name());
        if (!settings.user().isEmpty()) {
            sender.setUsername(settings.user());
            sender.setPassword(settings.password());
        }
        Properties properties = sender.getJavaMailProperties();
        properties.put("mail.smtp.auth", String.valueOf(!settings.user().isEmpty()));
        properties.put("mail.smtp.connectiontimeout", PATIENCE_MS);
        properties.put("mail.smtp.timeout", PATIENCE_MS);
        properties.put("mail.smtp.writetimeout", PATIENCE_MS);
        properties.put(
                "mail.smtp.starttls.required", String.valueOf(settings.security() == MailSettings.Security.STARTTLS));
        properties.put(
                "mail.smtp.starttls.enable", String.valueOf(settings.security() == MailSettings.Security.STARTTLS));
        properties.put("mail.smtp.ssl.enable", String.valueOf(settings.security() == MailSettings.Security.TLS));
        properties.put("mail.smtp.ssl.checkserveridentity", "true");
    }

    /** The server will never take mail for this address. */
    static final class NeverTaken extends RuntimeException {
        private static final long serialVersionUID = 1;

        NeverTaken(String why) {
            super(why);
        }
    }

    /**
     * @throws NeverTaken    if the address is refused for good
     * @throws MailException if it cannot be sent now
     */
    void send(String to, Letter letter) {
        MimeMessage message = sender.createMimeMessage();
        try {
            MimeMessageHelper helper = new MimeMessageHelper(message, StandardCharsets.UTF_8.name());
            helper.setFrom(settings.from());
            helper.setTo(to);
            // A title with a line break in it is not to write headers of its own.
            helper.setSubject(letter.subject().replaceAll("\\p{Cntrl}+", " "));
            helper.setText(letter.text());
            message.setHeader("Auto-Submitted", "auto-generated");
        } catch (MessagingException e) {
            throw new NeverTaken("it is no address");
        }
        try {
            sender.send(message);
        } catch (MailSendException e) {
            if (e.getFailedMessages().values().stream().anyMatch(Postman::isForGood)) {
                throw new NeverTaken("the mail server takes nothing for it");
            }
            throw e;
        }
    }

    /** The library tells apart what is refused for good and what may be tried again (RFC 5321, section 4.2.1). */
    private static boolean isForGood(Throwable why) {
        if (why instanceof SendFailedException failed) {
            Address[] invalid = failed.getInvalidAddresses();
            return invalid != null && invalid.length > 0
                    || failed.getNextException() != null && isForGood(failed.getNextException());
        }
        return false;
    }
}
