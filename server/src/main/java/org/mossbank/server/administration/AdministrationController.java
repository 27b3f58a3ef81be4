package org.mossbank.server.administration;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Size;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.Invitation;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

@RestController
@RequestMapping("/api/accounts")
class AdministrationController {
    private final AdministrationService accounts;

    AdministrationController(AdministrationService accounts) {
        this.accounts = accounts;
    }

    /**
     * Accounts by sign-in name, a page of fifty.
     *
     * @param after sign-in name after which the page begins
     * @param part  of a name or a sign-in name
     */
    @GetMapping
    AdministrationService.AccountPage page(
            @RequestParam(defaultValue = "") @Size(max = Accounts.LONGEST_SIGN_IN_NAME) String after,
            @RequestParam(defaultValue = "") @Size(max = Accounts.LONGEST_NAME) String part) {
        return accounts.page(after, part);
    }

    /** Makes an account, with a one-time link to pass on. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    AdministrationService.MadeAccount make(@Valid @RequestBody AdministrationService.MakeAccount request) {
        return accounts.make(request);
    }

    /** Says what somebody may do beside grading. */
    @MayRefuse(ProblemType.LAST_ADMINISTRATOR)
    @PutMapping("/{accountId}/rights")
    AccountView rights(@PathVariable AccountId accountId, @Valid @RequestBody AdministrationService.SetRights request) {
        return accounts.rights(accountId, request);
    }

    /** Signs somebody who leaves out everywhere, and lets them in no more; what they did stays. */
    @MayRefuse(ProblemType.LAST_ADMINISTRATOR)
    @PostMapping("/{accountId}/deactivate")
    AccountView deactivate(@PathVariable AccountId accountId) {
        return accounts.deactivate(accountId);
    }

    /** Lets somebody who had left in again. */
    @PostMapping("/{accountId}/reactivate")
    AccountView reactivate(@PathVariable AccountId accountId) {
        return accounts.reactivate(accountId);
    }

    /** Makes a one-time link for somebody, also where a password was lost; earlier ones end. */
    @MayRefuse(ProblemType.ACCOUNT_DEACTIVATED)
    @PostMapping("/{accountId}/link")
    Invitation link(@PathVariable AccountId accountId) {
        return accounts.link(accountId);
    }
}
