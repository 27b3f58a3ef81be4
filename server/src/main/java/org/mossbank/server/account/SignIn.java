package org.mossbank.server.account;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;

record SignIn(
        @NotBlank @Size(max = 64) String name,
        @NotBlank @Size(max = 200) String password) {
    /** Without the password, so that no log can hold it. */
    @Override
    public String toString() {
        return "SignIn[" + name + "]";
    }
}
