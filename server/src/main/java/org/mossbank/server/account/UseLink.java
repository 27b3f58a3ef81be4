package org.mossbank.server.account;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;

record UseLink(
        @NotBlank @Size(max = 100) String token,
        @NotBlank @Size(max = Accounts.LONGEST_NAME) String displayName,
        @NotBlank @Size(max = 200) String password) {
    /** Without token and password, so that no log can hold them. */
    @Override
    public String toString() {
        return "UseLink[" + displayName + "]";
    }
}
