package org.mossbank.server.mail;

import jakarta.validation.Valid;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
class MailController {
    private final MailService mail;

    MailController(MailService mail) {
        this.mail = mail;
    }

    /** Whether mail goes out here at all. */
    @GetMapping("/api/mail")
    MailService.MailOn on() {
        return mail.on();
    }

    /** Where mail reaches whoever asks, and what they want of it. */
    @GetMapping("/api/account/mail")
    MailService.OwnMailView own() {
        return mail.own();
    }

    /** Names an address, and says what one wants; a letter asks whether the address is right. */
    @MayRefuse(ProblemType.MAIL_OFF)
    @PutMapping("/api/account/mail")
    MailService.OwnMailView choose(@Valid @RequestBody MailService.ChooseMail request) {
        return mail.choose(request);
    }

    /** Wants no mail, and has no address here any more. */
    @DeleteMapping("/api/account/mail")
    MailService.OwnMailView forget() {
        return mail.forget();
    }

    /** Confirms an address, by the word that was sent there. */
    @MayRefuse(ProblemType.LINK_USED_OR_EXPIRED)
    @PostMapping("/api/links/address")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void confirm(@Valid @RequestBody MailService.ConfirmAddress request) {
        mail.confirm(request);
    }

    /** Sends a one-time link to whoever lost their password; the answer is the same whoever is named. */
    @PostMapping("/api/links/lost")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void lost(@Valid @RequestBody MailService.LostPassword request) {
        mail.lost(request);
    }
}
