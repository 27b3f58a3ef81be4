package org.mossbank.server.account.limits;

import jakarta.servlet.Filter;
import org.mossbank.server.account.KnownDevices;
import org.mossbank.server.shared.ProblemWriter;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/** The limit of requests, as its settings have it. */
@Component
public class RequestLimits {
    private final RequestLimit limit;

    RequestLimits(
            @Value("${mossbank.requests.account}") int ofAccount,
            @Value("${mossbank.requests.address}") int ofAddress,
            KnownDevices devices,
            ProblemWriter problems) {
        limit = new RequestLimit(new RequestLimit.Allowance(ofAccount, ofAddress), devices, problems);
    }

    /** Behind what says who asks. */
    public Filter filter() {
        return limit;
    }
}
