package org.mossbank.server.account;

import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import org.mossbank.server.account.proving.RecentProof;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/account")
class OwnAccountController {
    private final OwnAccountService accounts;
    private final RecentProof proof;
    private final SignInService signIns;

    OwnAccountController(OwnAccountService accounts, RecentProof proof, SignInService signIns) {
        this.signIns = signIns;
        this.proof = proof;
        this.accounts = accounts;
    }

    /** The account of whoever is signed in. */
    @GetMapping
    OwnAccountService.OwnAccount own(HttpSession session) {
        return accounts.own(session.getId());
    }

    /** Changes one's own name, and what one prefers. */
    @PutMapping
    OwnAccountService.OwnAccount write(@Valid @RequestBody OwnAccountService.WriteOwn request, HttpSession session) {
        return accounts.write(request, session.getId());
    }

    /** Changes one's own password. */
    @MayRefuse({ProblemType.TOO_MANY_WRONG_PASSWORDS, ProblemType.PASSWORDS_OFF})
    @PutMapping("/password")
    OwnAccountService.OwnAccount changePassword(
            @Valid @RequestBody OwnAccountService.ChangePassword request, HttpSession session) {
        signIns.requirePasswords();
        return accounts.changePassword(request, session.getId());
    }

    /** Shows once more who one is, before what cannot be taken back. */
    @MayRefuse({ProblemType.TOO_MANY_WRONG_PASSWORDS, ProblemType.PASSWORDS_OFF})
    @PostMapping("/proof")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void prove(@Valid @RequestBody OwnAccountService.Prove request, HttpSession session) {
        signIns.requirePasswords();
        accounts.prove(request);
        proof.given(session);
    }

    /** Signs out in one other browser. */
    @DeleteMapping("/sessions/{handle}")
    OwnAccountService.OwnAccount signOut(@PathVariable String handle, HttpSession session) {
        return accounts.signOut(handle, session.getId());
    }

    /** Signs out everywhere but here. */
    @DeleteMapping("/sessions")
    OwnAccountService.OwnAccount signOutElsewhere(HttpSession session) {
        return accounts.signOutElsewhere(session.getId());
    }
}
